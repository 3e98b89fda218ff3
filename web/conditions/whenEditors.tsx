import { Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { WEEKDAYS } from '@flimbo/core/time'
import { MomentField } from '../ui/index.ts'
import type { Editing } from './editing.ts'
import { ZoneField } from './fields.tsx'
import { Pick } from './Pick.tsx'

/** A stretch of time. */
export function WindowEditor({ leaf, change }: Editing<'window'>) {
  return (
    <Stack sx={{ gap: 1 }}>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <MomentField
          label="From"
          value={leaf.from}
          change={(from) => {
            change({ ...leaf, from })
          }}
        />
        <MomentField
          label="Until"
          value={leaf.upTo}
          change={(upTo) => {
            change({ ...leaf, upTo })
          }}
        />
      </Stack>
      <ZoneField
        value={leaf.zone}
        change={(zone) => {
          change({ ...leaf, zone })
        }}
      />
    </Stack>
  )
}

/** Weekdays and hours. */
export function HoursEditor({ leaf, change }: Editing<'hours'>) {
  return (
    <Stack sx={{ gap: 1 }}>
      <ToggleButtonGroup
        size="small"
        value={leaf.days}
        aria-label="Days"
        onChange={(_event, days: number[]) => {
          change({ ...leaf, days: [...days].sort((a, b) => a - b) })
        }}
      >
        {WEEKDAYS.map((day, i) => (
          <ToggleButton key={day} value={i + 1} aria-label={day} sx={{ px: 1 }}>
            {day.slice(0, 2)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Stack direction="row" sx={{ gap: 1 }}>
        <TextField
          size="small"
          type="time"
          label="From"
          value={leaf.from}
          onChange={({ target }) => {
            change({ ...leaf, from: target.value.slice(0, 5) })
          }}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <TextField
          size="small"
          type="time"
          label="Until"
          value={leaf.upTo}
          onChange={({ target }) => {
            change({ ...leaf, upTo: target.value.slice(0, 5) })
          }}
          slotProps={{ inputLabel: { shrink: true } }}
        />
      </Stack>
      {leaf.upTo <= leaf.from && (
        <Typography variant="caption" color="textSecondary">
          {leaf.upTo === leaf.from
            ? 'The whole day.'
            : 'Over midnight; each night belongs to the day it begins on.'}
        </Typography>
      )}
      <ZoneField
        value={leaf.zone}
        change={(zone) => {
          change({ ...leaf, zone })
        }}
      />
    </Stack>
  )
}

/** The first scan of a day, or another one. */
export function VisitEditor({ leaf, change }: Editing<'visit'>) {
  return (
    <Pick
      label="The scan is"
      value={leaf.is}
      choices={[
        ['first', 'the visitor’s first of the day'],
        ['repeat', 'another one on the same day'],
      ]}
      change={(is) => {
        change({ ...leaf, is: is === 'repeat' ? 'repeat' : 'first' })
      }}
    />
  )
}
