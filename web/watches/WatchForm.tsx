import { Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { fieldFaults } from '@flimbo/core/api'
import type { Scope } from '@flimbo/core/scans'
import { newWatch, watchesApi, type NewWatch, type WatchEvery, type WatchWhat } from '@flimbo/core/watches'
import { useState } from 'react'
import { faultsIn, sentenceOf, useChange } from '../api/index.ts'

const WHAT: Readonly<Record<WatchWhat, string>> = {
  summary: 'A summary',
  leads: 'Each new lead',
  first: 'The first scan',
  count: 'A number of scans',
  silent: 'No scan for some days',
  spike: 'Many more scans than usual',
  unusual: 'Anything unusual',
}
const EVERY: Readonly<Record<Exclude<WatchEvery, 'once'>, string>> = {
  hour: 'Every hour',
  day: 'Every day, at 7 in the morning',
  week: 'Every Monday, at 7 in the morning',
  month: 'On the first of each month, at 7 in the morning',
}
/** What stands in the number's field. */
const COUNTED: Partial<Readonly<Record<WatchWhat, string>>> = { count: 'Scans', silent: 'Days' }

/** Adds something that whoever is signed in is told of, on the desk and by mail. */
export function WatchForm({ scope }: { scope: Scope }) {
  const add = useChange(watchesApi.add)
  const [what, setWhat] = useState<WatchWhat>('summary')
  const [every, setEvery] = useState<Exclude<WatchEvery, 'once'>>('week')
  const [typed, setTyped] = useState('')
  const [fault, setFault] = useState<string | null>(null)
  const counted = COUNTED[what]

  const save = () => {
    const given: NewWatch = {
      ...scope,
      what,
      every: what === 'summary' ? every : 'once',
      n: counted === undefined ? null : Number(typed.replace(/[\s,.]/g, '')),
    }
    const checked = newWatch.safeParse(given)
    setFault(checked.success ? null : (fieldFaults(checked.error)[0]?.message ?? ''))
    if (checked.success)
      add.mutate(
        { body: checked.data },
        {
          onSuccess: () => {
            setTyped('')
          },
          onError: (error) => {
            setFault(sentenceOf(error, 'It was not saved. Try again.'))
          },
        },
      )
    else add.reset()
  }
  const isOfNumber = faultsIn(add.error)[0]?.path === 'n'
  const isNumberWrong = fault !== null && counted !== undefined && (!add.isError || isOfNumber)
  return (
    <Stack
      component="form"
      noValidate
      sx={{ gap: 1.5 }}
      onSubmit={(event) => {
        event.preventDefault()
        save()
      }}
    >
      <TextField
        select
        size="small"
        label="Tell me of"
        value={what}
        onChange={({ target }) => {
          setWhat(target.value as WatchWhat)
          setFault(null)
        }}
      >
        {Object.entries(WHAT)
          .filter(([each]) => each !== 'unusual' || scope.campaignId !== undefined)
          .map(([each, words]) => (
            <MenuItem key={each} value={each}>
              {words}
            </MenuItem>
          ))}
      </TextField>
      {what === 'summary' && (
        <TextField
          select
          size="small"
          label="How often"
          value={every}
          onChange={({ target }) => {
            setEvery(target.value as typeof every)
          }}
        >
          {Object.entries(EVERY).map(([each, words]) => (
            <MenuItem key={each} value={each}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      )}
      {counted !== undefined && (
        <TextField
          size="small"
          label={counted}
          value={typed}
          error={isNumberWrong}
          helperText={isNumberWrong ? fault : undefined}
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
          onChange={({ target }) => {
            setTyped(target.value)
            setFault(null)
          }}
        />
      )}
      {fault !== null && !isNumberWrong && (
        <Typography variant="body2" color="error" role="alert">
          {fault}
        </Typography>
      )}
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Typography variant="caption" color="textSecondary" sx={{ flex: 1 }}>
          {what === 'leads' || what === 'summary' ? 'By mail.' : 'On the desk, and by mail.'}
        </Typography>
        <Button type="submit" variant="contained" disabled={add.isPending}>
          Add
        </Button>
      </Stack>
    </Stack>
  )
}
