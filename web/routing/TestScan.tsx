import { Box, Button, FormControlLabel, Link, Stack, Switch, TextField, Typography } from '@mui/material'
import type { Code } from '@flimbo/core/codes'
import { languageName } from '@flimbo/core/conditions'
import { leadsWhere, type Lane, type Rehearsal } from '@flimbo/core/routing'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { LANGUAGES, OnePlace, Pick, Several } from '../conditions/index.ts'
import { MomentField, Copyable } from '../ui/index.ts'
import { DEVICES, NO_PLACE, type Rehearsed } from './rehearse.ts'
import { TraceList } from './TraceList.tsx'

interface Props {
  readonly given: Rehearsal
  readonly set: (change: Partial<Rehearsal>) => void
  readonly rehearsed: Rehearsed | null
  readonly codes: readonly Code[]
  readonly codeId: number | undefined
  readonly chooseCode: (id: number) => void
  readonly lanes: readonly Lane[]
  /** What the route's visit tags do, in sentences. */
  readonly fires: readonly string[]
  readonly keep: (name: string, leads: string) => void
}

/** A made-up scan, decided here and now by the very function that decides real ones. It counts nowhere. */
export function TestScan({ given, set, rehearsed, codes, codeId, chooseCode, lanes, fires, keep }: Props) {
  const device = DEVICES.findIndex(
    ({ device: each }) => JSON.stringify(each) === JSON.stringify(given.device),
  )
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(min(100%, 330px), 1fr))', gap: 2 }}
    >
      <Stack sx={{ gap: 1.5 }}>
        <OnePlace
          label="Scanned in"
          value={
            given.place.city === ''
              ? null
              : { ...given.place, latitude: given.place.latitude ?? 0, longitude: given.place.longitude ?? 0 }
          }
          change={(place) => {
            set({
              place: place
                ? {
                    country: place.country,
                    region: place.region,
                    city: place.city,
                    latitude: place.latitude,
                    longitude: place.longitude,
                  }
                : NO_PLACE,
            })
          }}
        />
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <Pick
            label="On"
            value={String(device)}
            choices={DEVICES.map(({ name }, i) => [String(i), name])}
            change={(i) => {
              set({ device: DEVICES[Number(i)]?.device ?? given.device })
            }}
          />
          {codes.length > 0 && (
            <Pick
              label="Piece"
              value={String(codeId ?? codes[0]?.id ?? '')}
              choices={codes.map(({ id, name }) => [String(id), name])}
              change={(id) => {
                chooseCode(Number(id))
              }}
            />
          )}
        </Stack>
        <Several
          label="Languages, preferred first"
          values={given.languages}
          options={LANGUAGES}
          nameOf={(tag) => `${languageName(tag)} (${tag})`}
          change={(languages) => {
            set({ languages: languages.slice(0, 10) })
          }}
        />
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
          <MomentField
            label="When (empty for now)"
            value={given.at}
            change={(at) => {
              set({ at })
            }}
          />
          <FormControlLabel
            label="repeat scan today"
            control={
              <Switch
                size="small"
                checked={given.repeat}
                onChange={(_event, repeat) => {
                  set({ repeat })
                }}
              />
            }
            slotProps={{ typography: { variant: 'body2' } }}
          />
        </Stack>
        <TextField
          size="small"
          label="Query string (optional)"
          placeholder="ref=abc"
          value={given.query}
          onChange={({ target }) => {
            set({ query: target.value.replace(/^\?/, '') })
          }}
        />
      </Stack>
      {rehearsed ? (
        <Outcome rehearsed={rehearsed} lanes={lanes} fires={fires} keep={keep} />
      ) : (
        <Typography color="textSecondary" role="status">
          Complete the address to run the test scan.
        </Typography>
      )}
    </Box>
  )
}

function Outcome({
  rehearsed: { decision, trace },
  lanes,
  fires,
  keep,
}: { rehearsed: Rehearsed } & Pick<Props, 'lanes' | 'fires' | 'keep'>) {
  const leads = leadsWhere(decision)
  return (
    <Stack sx={{ gap: 1 }} aria-live="polite" role="status" aria-label="Where the test scan leads">
      {decision.kind === 'redirect' && (
        <>
          <Copyable value={decision.address} label="the final address" />
          <Link href={decision.address} target="_blank" rel="noreferrer" variant="body2">
            Open it in a new window
          </Link>
          {fires.length > 0 && <Typography variant="body2">On the way: {fires.join('; ')}.</Typography>}
        </>
      )}
      {decision.kind === 'page' && (
        <>
          <Typography sx={{ fontWeight: 650 }}>The page “{decision.page.name}”</Typography>
          <Link component={RouterLink} to={`../pages?page=${String(decision.page.id)}`} variant="body2">
            See it as a phone shows it
          </Link>
        </>
      )}
      {decision.kind !== 'redirect' && decision.kind !== 'page' && (
        <Typography sx={{ fontWeight: 650 }}>{leads.charAt(0).toUpperCase() + leads.slice(1)}</Typography>
      )}
      <TraceList trace={trace} lanes={lanes} />
      <KeepForm
        keep={(name) => {
          keep(name, leads)
        }}
      />
    </Stack>
  )
}

function KeepForm({ keep }: { keep: (name: string) => void }) {
  const [name, setName] = useState('')
  return (
    <Stack
      component="form"
      direction="row"
      sx={{ gap: 1 }}
      onSubmit={(event) => {
        event.preventDefault()
        if (name.trim() !== '') {
          keep(name.trim())
          setName('')
        }
      }}
    >
      <TextField
        size="small"
        label="Save as an expectation named"
        value={name}
        onChange={({ target }) => {
          setName(target.value.slice(0, 120))
        }}
        sx={{ flex: 1 }}
      />
      <Button type="submit" variant="outlined" disabled={name.trim() === ''}>
        Save
      </Button>
    </Stack>
  )
}
