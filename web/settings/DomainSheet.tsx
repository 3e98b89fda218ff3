import { Button, Stack, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { domainsApi, type Domain } from '@flimbo/core/domains'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { Sheet, Fault } from '../ui/index.ts'
import { DomainAnswers } from './DomainAnswers.tsx'
import { DomainRecords } from './DomainRecords.tsx'
import { RemoveDomain } from './RemoveDomain.tsx'

const STATES = { waiting: '◐ waits for its records', ready: '● ready', removed: '○ removed' } as const

/** One domain: its records, its check, and what it answers beside short links. */
export function DomainSheet({ domain }: { domain: Domain }) {
  const [removing, setRemoving] = useState(false)
  const [trouble, setTrouble] = useState<string | null>(null)
  const change = useChange(domainsApi.change)
  const params = { id: domain.id }
  const attempt = async (work: () => Promise<unknown>) => {
    setTrouble(null)
    try {
      await work()
    } catch (error) {
      setTrouble(sentenceOf(error, 'The server could not be reached. Nothing was changed.'))
    }
  }
  return (
    <Sheet
      title={
        <>
          {domain.host}{' '}
          <Typography
            component="span"
            variant="body2"
            color={domain.state === 'waiting' ? 'warning' : 'textSecondary'}
          >
            {domain.own ? 'the front door’s own address' : STATES[domain.state]}
            {domain.isDefault && ' · default'} · {quantity(domain.links, 'short link')}
          </Typography>
        </>
      }
      aside={
        <Stack direction="row" spacing={1}>
          {!domain.isDefault && domain.state === 'ready' && (
            <Button
              onClick={() => {
                void attempt(() =>
                  change.mutateAsync({ params, body: { version: domain.version, isDefault: true } }),
                )
              }}
            >
              Make default
            </Button>
          )}
          {!domain.own && (
            <Button
              color="error"
              onClick={() => {
                setRemoving(true)
              }}
            >
              Remove
            </Button>
          )}
        </Stack>
      }
    >
      <Stack spacing={2}>
        <Fault sentence={trouble} />
        {domain.records && <DomainRecords domain={domain} records={domain.records} attempt={attempt} />}
        <DomainAnswers domain={domain} />
      </Stack>
      <RemoveDomain
        domain={domain}
        open={removing}
        close={() => {
          setRemoving(false)
        }}
      />
    </Sheet>
  )
}
