import { Typography } from '@mui/material'
import { day } from '@flimbo/core/formats'
import type { Results } from '@flimbo/core/results'
import { dayIn, startOfDay } from '@flimbo/core/time'

/** Says from when on scans have rows, where the days shown reach back further. */
export function FoldedNote({
  data: { rowsSince, zone, period, before },
}: {
  data: Pick<Results, 'rowsSince' | 'zone' | 'period' | 'before'>
}) {
  const first = before?.from ?? period.from
  if (rowsSince === null || startOfDay(zone, first) >= rowsSince) return null
  return (
    <Typography variant="body2" color="textSecondary" role="note">
      Scans before {day(dayIn(zone, rowsSince))} are kept as sums only: they count in every figure here, by
      the days of the campaign’s zone, and have no rows any more.
    </Typography>
  )
}
