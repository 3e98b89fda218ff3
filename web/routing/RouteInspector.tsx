import { Alert, FormControlLabel, Stack, Switch, Typography } from '@mui/material'
import { openLife, type Answer, type Life } from '@flimbo/core/routing'
import type { ReactNode } from 'react'
import { LANGUAGES, NumberField, Several, ZoneField } from '../conditions/index.ts'
import { MomentField, Inspector } from '../ui/index.ts'
import { AddressField, AnswerEditor } from './AnswerEditor.tsx'
import type { DraftState } from './useDraft.ts'

interface Props {
  readonly state: DraftState
  readonly close: () => void
}

/** The otherwise lane: where every scan goes that no lane took. */
export function OtherwiseInspector({
  state: { draft, edit },
  close,
  inputRef,
  rows,
  findings,
}: Props & { inputRef: React.Ref<HTMLInputElement>; rows: ReactNode; findings: readonly string[] }) {
  const { language } = draft.rules
  return (
    <Inspector title="Otherwise" close={close}>
      <Stack sx={{ gap: 2 }}>
        <Typography variant="body2" color="textSecondary">
          Every scan that no lane takes goes here.
        </Typography>
        {rows}
        <AddressField
          label="Every other scan leads to"
          value={draft.destination}
          change={(destination) => {
            edit((was) => ({ ...was, destination }))
          }}
          inputRef={inputRef}
        />
        {findings.map((sentence) => (
          <Alert key={sentence} severity="warning" variant="outlined" icon={false}>
            {sentence}
          </Alert>
        ))}
        <Several
          label="Its language"
          values={language === '' ? [] : [language]}
          options={LANGUAGES}
          change={(tags) => {
            edit((was) => ({ ...was, rules: { ...was.rules, language: tags.at(-1) ?? '' } }))
          }}
        />
        <Typography variant="caption" color="textSecondary">
          With its language named, a reader who would sooner read it is not taken by a lane for another
          language.
        </Typography>
      </Stack>
    </Inspector>
  )
}

/** From when to when the route takes scans, how many, and what comes before and after. */
export function LifeInspector({ state: { draft, edit }, zone, close }: Props & { zone: string }) {
  const life = draft.rules.life ?? openLife(zone)
  const set = (change: Partial<Life>) => {
    const next = { ...life, ...change }
    const isOpen = next.startsAt === '' && next.endsAt === '' && next.limit === null && next.daily === null
    edit((was) => ({ ...was, rules: { ...was.rules, life: isOpen ? null : next } }))
  }
  const answer = (label: string, value: Answer | null, then: (answer: Answer | null) => Partial<Life>) => (
    <AnswerEditor
      label={label}
      answer={value}
      plain="Flimbo’s plain words"
      change={(next) => {
        set(then(next))
      }}
    />
  )
  return (
    <Inspector title="Dates and limits" close={close}>
      <Stack sx={{ gap: 2 }}>
        <MomentField
          label="Begins"
          value={life.startsAt}
          change={(startsAt) => {
            set({ startsAt })
          }}
        />
        {life.startsAt !== '' && answer('Before it', life.before, (before) => ({ before }))}
        <MomentField
          label="Ends"
          value={life.endsAt}
          change={(endsAt) => {
            set({ endsAt })
          }}
        />
        {life.endsAt !== '' && answer('After it', life.after, (after) => ({ after }))}
        <ZoneField
          value={life.zone}
          change={(next) => {
            set({ zone: next })
          }}
        />
        <NumberField
          label="Scans in all"
          value={life.limit}
          step={1}
          width={150}
          change={(limit) => {
            set({ limit })
          }}
        />
        {life.limit !== null && answer('When they are used up', life.full, (full) => ({ full }))}
        {life.limit !== null && (
          <Typography variant="caption" color="textSecondary">
            Real scans count, from the moment the limit is published. Exactly so many get through.
          </Typography>
        )}
        <NumberField
          label="Scans a day"
          value={life.daily}
          step={1}
          width={150}
          change={(daily) => {
            set({ daily })
          }}
        />
        {life.daily !== null &&
          answer('When the day’s are used up', life.fullToday, (fullToday) => ({ fullToday }))}
        {(life.limit !== null || life.daily !== null) && (
          <div>
            <FormControlLabel
              label="Count a visitor once a day"
              control={
                <Switch
                  size="small"
                  checked={life.once}
                  onChange={(_event, once) => {
                    set({ once })
                  }}
                />
              }
              slotProps={{ typography: { variant: 'body2' } }}
            />
            <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
              {life.once
                ? 'Somebody who scans again on the same day takes no further place. A visitor is a network address with a browser: two browsers on one phone are two.'
                : 'Each scan takes a place: one phone that reloads the page can use the limit up by itself.'}
            </Typography>
          </div>
        )}
      </Stack>
    </Inspector>
  )
}
