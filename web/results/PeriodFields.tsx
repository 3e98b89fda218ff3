import { Box, MenuItem } from '@mui/material'
import { presetNamed, PRESETS, type Period } from '@flimbo/core/results'
import { DayField } from '../ui/index.ts'
import { Choice } from './Choice.tsx'

const OWN_DAYS = 'own'

/** Days that go with the day, or days that stay. */
export function PeriodFields({
  period,
  days: { from, to },
  change,
}: {
  period: Period
  /** The days it stands for now. */
  days: { readonly from: string; readonly to: string }
  change: (period: Period) => void
}) {
  return (
    <>
      <Choice
        label="Period"
        value={'preset' in period ? period.preset : OWN_DAYS}
        width={140}
        change={(chosen) => {
          change(chosen === OWN_DAYS ? { from, to } : { preset: presetNamed(chosen) })
        }}
      >
        {PRESETS.map(({ id, label }) => (
          <MenuItem key={id} value={id}>
            {label}
          </MenuItem>
        ))}
        <MenuItem value={OWN_DAYS}>Custom dates</MenuItem>
      </Choice>
      <Box sx={{ width: 150 }}>
        <DayField
          label="From"
          value={from}
          change={(day) => {
            if (day !== '') change({ from: day, to: to < day ? day : to })
          }}
        />
      </Box>
      <Box sx={{ width: 150 }}>
        <DayField
          label="To"
          value={to}
          change={(day) => {
            if (day !== '') change({ from: from > day ? day : from, to: day })
          }}
        />
      </Box>
    </>
  )
}
