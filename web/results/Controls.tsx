import { UNITS } from '@flimbo/core/time'
import { Box, FormControlLabel, MenuItem, Stack, Switch, TextField } from '@mui/material'
import { DayField } from '../ui/index.ts'
import { PRESETS, type Period } from './period.ts'

/** Which days are shown, by which unit, and against what. */
export function Controls({
  period,
  change,
}: {
  period: Period
  change: (change: Record<string, string | null>) => void
}) {
  const { preset, from, to, unit, compare } = period
  const custom = { days: null, from, to }
  return (
    <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
      <TextField
        select
        size="small"
        label="Period"
        value={preset}
        sx={{ minWidth: 140 }}
        onChange={({ target }) => {
          change(target.value === 'custom' ? custom : { days: target.value, from: null, to: null })
        }}
      >
        {PRESETS.map(({ id, label }) => (
          <MenuItem key={id} value={id}>
            {label}
          </MenuItem>
        ))}
        <MenuItem value="custom">Custom dates</MenuItem>
      </TextField>
      <Box sx={{ width: 160 }}>
        <DayField
          label="From"
          value={from}
          change={(day) => {
            if (day !== '') change({ ...custom, from: day, to: to < day ? day : to })
          }}
        />
      </Box>
      <Box sx={{ width: 160 }}>
        <DayField
          label="To"
          value={to}
          change={(day) => {
            if (day !== '') change({ ...custom, to: day, from: from > day ? day : from })
          }}
        />
      </Box>
      <TextField
        select
        size="small"
        label="By"
        value={unit ?? 'auto'}
        sx={{ minWidth: 110 }}
        onChange={({ target }) => {
          change({ unit: target.value === 'auto' ? null : target.value })
        }}
      >
        <MenuItem value="auto">automatic</MenuItem>
        {UNITS.map((each) => (
          <MenuItem key={each} value={each}>
            {each}
          </MenuItem>
        ))}
      </TextField>
      <FormControlLabel
        control={
          <Switch
            checked={compare}
            onChange={(_event, on) => {
              change({ compare: on ? 'yes' : null })
            }}
          />
        }
        label="Compare with the period before"
      />
    </Stack>
  )
}
