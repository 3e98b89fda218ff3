import { Box } from '@mui/material'
import { quantity } from '@flimbo/core/formats'

const HEIGHT = 28
const STEP = 6

/** Scans a day as a row of bars; the current day, still growing, is lighter. */
export function Sparkline({ days }: { days: readonly number[] }) {
  const top = Math.max(1, ...days)
  const sum = days.reduce((a, b) => a + b, 0)
  const width = days.length * STEP
  return (
    <Box
      component="svg"
      role="img"
      aria-label={`${quantity(sum, 'scan')} in the last ${String(days.length)} days`}
      viewBox={`0 0 ${String(width)} ${String(HEIGHT)}`}
      preserveAspectRatio="none"
      sx={{ width: '100%', height: 36, color: 'primary.main', display: 'block' }}
    >
      <line
        x1="0"
        x2={width}
        y1={HEIGHT - 0.5}
        y2={HEIGHT - 0.5}
        stroke="currentColor"
        strokeOpacity="0.4"
        vectorEffect="non-scaling-stroke"
      />
      {days.map((n, i) => (
        <rect
          key={i}
          x={i * STEP}
          width={STEP - 1.5}
          y={HEIGHT - (n / top) * HEIGHT}
          height={(n / top) * HEIGHT}
          fill="currentColor"
          fillOpacity={i === days.length - 1 ? 0.55 : 1}
        />
      ))}
    </Box>
  )
}
