import { Alert, Button, Stack, Typography } from '@mui/material'
import type { Code } from '@flimbo/core/codes'
import { useEffect, useEffectEvent, useRef, useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { byContract, showFaults, useAnswer } from '../api/index.ts'
import { taggingApi } from '@flimbo/core/tagging'
import { quantity } from '@flimbo/core/formats'
import { Conflict, FormChoice, FormDestination, FormText } from '../ui/index.ts'
import { OwnFields, PlanFields } from './PlanFields.tsx'
import { CODE_FIELDS, pieceValues, type PieceValues } from './pieceFields.ts'
import { pieceContract, readTyped } from './pieceValues.ts'
import { SlugHint } from './SlugHint.tsx'
import { TagField } from './TagField.tsx'
import { usePieceSave } from './usePieceSave.ts'

const STATE_NAMES = {
  live: 'Live: scans are sent on',
  paused: 'Paused: a page says so',
  deleted: 'Deleted',
} as const

/** Everything that can be changed of a piece, with one Save. */
export function PieceForm({ code, focusDestination }: { code: Code; focusDestination: number }) {
  const [trouble, setTrouble] = useState<string | null>(null)
  const {
    control,
    handleSubmit,
    reset,
    setError,
    setValue,
    getValues,
    formState: { isDirty },
  } = useForm<PieceValues>({
    defaultValues: pieceValues(code),
    resolver: byContract(pieceContract, readTyped),
  })
  const slug = useWatch({ control, name: 'slug' })
  const rules = useAnswer(taggingApi.rules, {})
  const destinationField = useRef<HTMLInputElement>(null)

  const piece = usePieceSave(code, isDirty)
  // What others save shows at once, but never in place of what is being typed.
  const follow = useEffectEvent((stored: Code) => {
    const values = piece.follow(stored)
    if (values) reset(values)
  })
  useEffect(() => {
    if (!isDirty) follow(code)
  }, [code, isDirty])
  useEffect(() => {
    if (focusDestination > 0) destinationField.current?.select()
  }, [focusDestination])

  async function save(values: PieceValues): Promise<void> {
    setTrouble(null)
    try {
      const saved = await piece.save(values)
      if (saved) reset(saved)
    } catch (error) {
      setTrouble(showFaults(error, setError, [...CODE_FIELDS, 'destination']))
    }
  }

  /** Theirs in place of one's own; where only the destination is in dispute, the rest that was typed stays. */
  function keepStored(isDestinationOnly: boolean): void {
    const stored = piece.rebase()
    reset(stored, { keepValues: isDestinationOnly })
    setValue('destination', stored.destination, { shouldDirty: true })
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
      {trouble !== null && (
        <Alert severity="error" variant="outlined">
          {trouble}
        </Alert>
      )}
      {piece.conflict && (
        <Conflict
          what={piece.conflict.what}
          rows={piece.conflict.rows(getValues())}
          keepStored={() => {
            keepStored(piece.conflict?.what === 'destination')
          }}
          overwrite={() => {
            piece.rebase()
            void save(getValues())
          }}
        />
      )}
      <FormDestination
        control={control}
        name="destination"
        label="Destination"
        multiline
        maxRows={4}
        slotProps={{ htmlInput: { ref: destinationField } }}
        hint={
          code.routeCodes > 1
            ? `Shared: this changes where ${quantity(code.routeCodes, 'code')} of “${code.routeName}” lead`
            : 'Live for the next scan after you save'
        }
      />
      <FormText control={control} name="name" label="Name" />
      <Stack direction="row" spacing={2}>
        <TagField control={control} name="medium" field="medium" label="Medium" />
        <TagField control={control} name="source" field="source" label="Source" />
      </Stack>
      <Stack direction="row" spacing={2}>
        <TagField control={control} name="content" field="content" label="Content" />
        <TagField control={control} name="term" field="term" label="Term" />
      </Stack>
      <OwnFields control={control} rules={rules.data?.value} />
      <FormText
        control={control}
        name="slug"
        label="Short link"
        hint="A printed link goes on working when you change it"
      />
      <SlugHint
        typed={slug}
        campaignId={code.campaignId}
        domainId={code.domainId}
        own={code.slug}
        choose={(chosen) => {
          setValue('slug', chosen, { shouldDirty: true })
        }}
      />
      <PlanFields control={control} />
      {code.state !== 'deleted' && (
        <FormChoice
          control={control}
          name="state"
          label="State"
          choices={(['live', 'paused'] as const).map((value) => ({ value, label: STATE_NAMES[value] }))}
        />
      )}
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button type="submit" variant="contained" disabled={!isDirty || piece.isSaving}>
          Save
        </Button>
        {isDirty ? (
          <Button
            color="inherit"
            onClick={() => {
              piece.rebase()
              reset(piece.follow(code) ?? pieceValues(code))
              setTrouble(null)
            }}
          >
            Discard changes
          </Button>
        ) : (
          <Typography variant="body2" color="textSecondary" role="status">
            Everything is saved.
          </Typography>
        )}
      </Stack>
    </Stack>
  )
}
