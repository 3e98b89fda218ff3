import { Typography } from '@mui/material'
import { day } from '@flimbo/core/formats'
import { dayIn, startOfDay } from '@flimbo/core/time'

/** Says from when on scans have rows, where the days shown reach back further. */
export function FoldedNote({
  rowsSince,
  zone,
  first,
  isLeftOut,
}: {
  rowsSince: number | null
  zone: string
  /** The first day that is shown. */
  first: string
  /** Whether some figure is of scans that have rows alone. */
  isLeftOut: boolean
}) {
  if (rowsSince === null || startOfDay(zone, first) >= rowsSince) return null
  return (
    <Typography variant="body2" color="textSecondary" role="note">
      Scans before {day(dayIn(zone, rowsSince))} are kept as sums only: they have no rows any more, and count
      by the days of the campaign’s zone.
      {isLeftOut &&
        ' Two things at once, and figures that are narrowed to places, devices or hours, leave them out.'}
    </Typography>
  )
}
