import { Button, Stack } from '@mui/material'
import { domainChange, domainsApi, type Domain } from '@flimbo/core/domains'
import { useEffect, useState } from 'react'
import { useForm } from 'react-hook-form'
import { byContract, showFaults, useChange, useVersion } from '../api/index.ts'
import { Conflict, disagreements, FormText, Fault } from '../ui/index.ts'

interface Values {
  home: string
  unknown: string
  unknownText: string
}
const FIELDS = ['home', 'unknown', 'unknownText'] as const
const NAMES = {
  home: 'The bare domain leads to',
  unknown: 'An unknown short link leads to',
  unknownText: 'Text on that page',
} as const
const valuesOf = ({ home, unknown, unknownText }: Domain): Values => ({ home, unknown, unknownText })

/** What a domain answers beside its short links. */
export function DomainAnswers({ domain }: { domain: Domain }) {
  const [trouble, setTrouble] = useState<string | null>(null)
  const change = useChange(domainsApi.change)
  const {
    control,
    handleSubmit,
    reset,
    setError,
    getValues,
    formState: { isDirty },
  } = useForm<Values>({
    defaultValues: valuesOf(domain),
    resolver: byContract(domainChange, (values) => ({ ...values, version: domain.version })),
  })
  const version = useVersion<Domain>(domain.version, isDirty)
  useEffect(() => {
    if (!isDirty) reset(valuesOf(domain))
  }, [domain, isDirty, reset])
  const save = async ({ home, unknown, unknownText }: Values) => {
    setTrouble(null)
    try {
      const saved = await version.save((from) =>
        change.mutateAsync({
          params: { id: domain.id },
          body: { version: from, home, unknown, unknownText },
        }),
      )
      if (saved !== null) reset(valuesOf(saved))
    } catch (error) {
      setTrouble(showFaults(error, setError, FIELDS))
    }
  }
  return (
    <Stack
      component="form"
      noValidate
      spacing={2}
      onSubmit={(event) => {
        void handleSubmit(save)(event)
      }}
    >
      <Fault sentence={trouble} />
      {version.newer !== null && (
        <Conflict
          what="domain"
          rows={disagreements(getValues(), valuesOf(version.newer), NAMES)}
          keepStored={() => {
            if (version.newer) reset(valuesOf(version.newer))
            version.rebase()
          }}
          overwrite={() => {
            version.rebase()
            void save(getValues())
          }}
        />
      )}
      <Stack direction="row" spacing={2}>
        <FormText
          control={control}
          name="home"
          label="The bare domain leads to"
          placeholder="https://"
          hint="Empty: a small page of Flimbo’s"
        />
        <FormText
          control={control}
          name="unknown"
          label="An unknown short link leads to"
          placeholder="https://"
          hint="Empty: a page that says there is no such link"
        />
      </Stack>
      <FormText
        control={control}
        name="unknownText"
        label="Text on that page"
        hint="Empty: Flimbo’s default text"
      />
      <Button
        type="submit"
        variant="contained"
        disabled={!isDirty || change.isPending}
        sx={{ alignSelf: 'flex-start' }}
      >
        Save
      </Button>
    </Stack>
  )
}
