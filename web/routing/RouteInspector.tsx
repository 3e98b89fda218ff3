import { Alert, Button, FormControlLabel, Stack, Switch, TextField, Typography } from '@mui/material'
import { openLife, routesApi, type Answer, type Life, type WholeRoute } from '@flimbo/core/routing'
import { useState, type ReactNode } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { MomentField, NumberField, Several, ZoneField } from '../conditions/index.ts'
import { LANGUAGES } from '../conditions/index.ts'
import { Inspector } from '../ui/index.ts'
import { AddressField, AnswerEditor } from './AnswerEditor.tsx'
import type { DraftState } from './useDraft.ts'

interface Props { readonly route: WholeRoute; readonly state: DraftState; readonly zone: string; readonly close: () => void }

/** The otherwise lane: where every scan goes that no lane took. */
export function OtherwiseInspector({ state: { draft, edit }, close, inputRef, rows, findings }: Props & { inputRef: React.Ref<HTMLInputElement>; rows: ReactNode; findings: readonly string[] }) {
  const { language } = draft.rules
  return (
    <Inspector title="Otherwise" close={close}>
      <Stack sx={{ gap: 2 }}>
        <Typography variant="body2" color="textSecondary">Every scan that no lane takes goes here.</Typography>
        {rows}
        <AddressField label="Every other scan leads to" value={draft.destination} change={(destination) => { edit((was) => ({ ...was, destination })) }} inputRef={inputRef} />
        {findings.map((sentence) => <Alert key={sentence} severity="warning" variant="outlined" icon={false}>{sentence}</Alert>)}
        <Several label="Its language" values={language === '' ? [] : [language]} options={LANGUAGES} change={(tags) => { edit((was) => ({ ...was, rules: { ...was.rules, language: tags.at(-1) ?? '' } })) }} />
        <Typography variant="caption" color="textSecondary">With its language named, a reader who would sooner read it is not taken by a lane for another language.</Typography>
      </Stack>
    </Inspector>
  )
}

/** From when to when the route takes scans, how many, and what comes before and after. */
export function LifeInspector({ state: { draft, edit }, zone, close }: Props) {
  const life = draft.rules.life ?? openLife(zone)
  const set = (change: Partial<Life>) => {
    const next = { ...life, ...change }
    const isOpen = next.startsAt === '' && next.endsAt === '' && next.limit === null && next.daily === null
    edit((was) => ({ ...was, rules: { ...was.rules, life: isOpen ? null : next } }))
  }
  const answer = (label: string, value: Answer | null, then: (answer: Answer | null) => Partial<Life>) => <AnswerEditor label={label} answer={value} plain="Flimbo’s plain words" change={(next) => { set(then(next)) }} />
  return (
    <Inspector title="Dates and limits" close={close}>
      <Stack sx={{ gap: 2 }}>
        <MomentField label="Begins" value={life.startsAt} change={(startsAt) => { set({ startsAt }) }} />
        {life.startsAt !== '' && answer('Before it', life.before, (before) => ({ before }))}
        <MomentField label="Ends" value={life.endsAt} change={(endsAt) => { set({ endsAt }) }} />
        {life.endsAt !== '' && answer('After it', life.after, (after) => ({ after }))}
        <ZoneField value={life.zone} change={(next) => { set({ zone: next }) }} />
        <NumberField label="Scans in all" value={life.limit} step={1} width={150} change={(limit) => { set({ limit }) }} />
        {life.limit !== null && answer('When they are used up', life.full, (full) => ({ full }))}
        {life.limit !== null && <Typography variant="caption" color="textSecondary">Real scans count, from the moment the limit is published. Exactly so many get through.</Typography>}
        <NumberField label="Scans a day" value={life.daily} step={1} width={150} change={(daily) => { set({ daily }) }} />
        {life.daily !== null && answer('When the day’s are used up', life.fullToday, (fullToday) => ({ fullToday }))}
      </Stack>
    </Inspector>
  )
}

/** A password before the route, and whether phones are asked where they are. */
export function ProtectionInspector({ route, state: { draft, edit }, close }: Props) {
  const { askLocation } = draft.rules
  return (
    <Inspector title="Password and place" close={close}>
      <Stack sx={{ gap: 2 }}>
        <PasswordForm route={route} />
        <Typography variant="h3">Precise place</Typography>
        <FormControlLabel label="Ask phones where they are" control={<Switch size="small" checked={askLocation !== null} onChange={(_event, on) => { edit((was) => ({ ...was, rules: { ...was.rules, askLocation: on ? { why: 'Tell us where you are, and we show you the nearest pier.' } : null } })) }} />} />
        {askLocation && <TextField size="small" label="Why, in your words" value={askLocation.why} multiline maxRows={4} onChange={({ target }) => { edit((was) => ({ ...was, rules: { ...was.rules, askLocation: { why: target.value.replace(/[\r\n]+/g, ' ') } } })) }} />}
        {askLocation && <Typography variant="caption" color="textSecondary">Whoever says no is sent on all the same. The place is used to choose the lane, and kept only if the visitor agrees, rounded to about a kilometre.</Typography>}
      </Stack>
    </Inspector>
  )
}

function PasswordForm({ route }: { route: WholeRoute }) {
  const [password, setPassword] = useState('')
  const { mutate, isPending, error } = useChange(routesApi.setPassword)
  const set = (next: string) => { mutate({ params: { id: route.id }, body: { version: route.version, password: next } }, { onSuccess: () => { setPassword('') } }) }
  return (
    <Stack component="form" sx={{ gap: 1 }} onSubmit={(event) => { event.preventDefault(); if (password !== '') set(password) }}>
      <Typography variant="h3">Password</Typography>
      <Typography variant="body2">{route.locked ? 'A password stands before this route.' : 'No password stands before this route.'}</Typography>
      {error && <Alert severity="error" variant="outlined">{sentenceOf(error, 'The password could not be set.')}</Alert>}
      <TextField size="small" type="password" label={route.locked ? 'Another password' : 'Password'} autoComplete="new-password" value={password} onChange={({ target }) => { setPassword(target.value) }} />
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button type="submit" variant="outlined" disabled={isPending || password === ''}>{route.locked ? 'Change it now' : 'Put it before the route now'}</Button>
        {route.locked && <Button color="inherit" disabled={isPending} onClick={() => { set('') }}>Take it away now</Button>}
      </Stack>
      <Typography variant="caption" color="textSecondary">Live at once. Kept only as a hash: nobody can read it here again.</Typography>
    </Stack>
  )
}
