import AddIcon from '@mui/icons-material/Add'
import { Alert, Button, Skeleton, Stack, TextField, Typography } from '@mui/material'
import { domainsApi } from '@flimbo/core/domains'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Sheet, Trouble } from '../ui/index.ts'
import { ClientDomains } from './ClientDomains.tsx'
import { DomainSheet } from './DomainSheet.tsx'

/** The domains short links can be on: adding one, what each answers, and which client has which. */
export function DomainsPart() {
  const domains = useAnswer(domainsApi.list, {})
  const create = useChange(domainsApi.create)
  const [host, setHost] = useState('')
  const [fault, setFault] = useState<string | null>(null)
  const add = async () => {
    setFault(null)
    try {
      await create.mutateAsync({ body: { host } })
      setHost('')
    } catch (error) {
      setFault(sentenceOf(error, 'The domain could not be sent.'))
    }
  }
  if (domains.isError) return <Trouble error={domains.error} />
  if (!domains.data) return <Skeleton variant="rounded" height={320} />
  return (
    <>
      <Sheet title="Add domain">
        <Stack
          direction="row"
          component="form"
          sx={{ gap: 1, alignItems: 'flex-start' }}
          onSubmit={(event) => {
            event.preventDefault()
            void add()
          }}
        >
          <TextField
            size="small"
            label="Host name"
            placeholder="go.example.com"
            value={host}
            onChange={(event) => {
              setHost(event.target.value)
              setFault(null)
            }}
            error={fault !== null}
            helperText={fault ?? 'One you own. You set two records for it, then press check.'}
            sx={{ width: 360 }}
          />
          <Button
            type="submit"
            variant="contained"
            startIcon={<AddIcon />}
            disabled={host.trim() === '' || create.isPending}
          >
            Add
          </Button>
        </Stack>
      </Sheet>
      {domains.data.rows.map((domain) => (
        <DomainSheet key={domain.id} domain={domain} />
      ))}
      {domains.data.rows.length > 1 ? (
        <ClientDomains domains={domains.data.rows} />
      ) : (
        <Alert severity="info" variant="outlined">
          <Typography variant="body2">
            With a second domain you can choose one for each client, and for each campaign in its settings.
          </Typography>
        </Alert>
      )}
    </>
  )
}
