import { Link } from '@mui/material'
import { number } from '@flimbo/core/formats'

/** A figure that leads to the rows it is counted from; where there are none, it is a plain number. */
export function FigureLink({ count, of, show }: { count: number; of: string; show: () => void }) {
  if (count === 0) return number(count)
  return (
    <Link
      component="button"
      type="button"
      color="inherit"
      underline="always"
      onClick={show}
      aria-label={`${number(count)}, ${of}: show the rows`}
      sx={{ font: 'inherit', textDecorationStyle: 'dotted', textUnderlineOffset: 3 }}
    >
      {number(count)}
    </Link>
  )
}
