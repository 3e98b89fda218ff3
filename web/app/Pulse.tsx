import { Box, Stack, Tooltip, Typography } from '@mui/material'
import { scansApi } from '@flimbo/core/scans'
import { useEffect } from 'react'
import { useAnswer } from '../api/index.ts'
import { quantity, number } from '@flimbo/core/formats'

const WIDTH = 60
const HEIGHT = 20
const MINUTE_MS = 60_000

/** The last hour's scans, minute by minute. */
export function Pulse() {
  const { data, refetch } = useAnswer(scansApi.pulse, {})
  useEffect(() => {
    const tick = setInterval(() => {
      void refetch()
    }, MINUTE_MS)
    return () => {
      clearInterval(tick)
    }
  }, [refetch])
  const minutes = data?.minutes ?? []
  const top = Math.max(1, ...minutes)
  const text = `${quantity(data?.total ?? 0, 'scan')} in the last hour`
  return (
    <Tooltip title={text}>
      <Stack direction="row" role="img" aria-label={text} sx={{ alignItems: 'center', gap: 1 }}>
        <Box
          component="svg"
          viewBox={`0 0 ${String(WIDTH)} ${String(HEIGHT)}`}
          sx={{ width: 90, height: 24, color: 'primary.main' }}
          aria-hidden
        >
          <line
            x1="0"
            x2={WIDTH}
            y1={HEIGHT - 0.5}
            y2={HEIGHT - 0.5}
            stroke="currentColor"
            strokeOpacity="0.35"
          />
          {minutes.map(
            (n, i) =>
              n > 0 && (
                <rect
                  key={i}
                  x={i}
                  width="0.8"
                  y={HEIGHT - (n / top) * HEIGHT}
                  height={(n / top) * HEIGHT}
                  fill="currentColor"
                />
              ),
          )}
        </Box>
        <Typography variant="body2" color="textSecondary" sx={{ minWidth: 42 }}>
          {number(data?.total ?? 0)}/h
        </Typography>
      </Stack>
    </Tooltip>
  )
}
