import { Box, Skeleton, Typography } from '@mui/material'
import { MAP_SHAPE, mapChart } from '@flimbo/core/charts'
import type { Point } from '@flimbo/core/conditions'
import { PLACE_NOTE } from '@flimbo/core/scans'
import { useMemo } from 'react'
import { useQuery } from '@tanstack/react-query'
import { Chart, useChartColours } from '../charts/index.ts'
import { Trouble } from '../ui/index.ts'
import type { AnswerProps } from './AnswerSheet.tsx'
import { KeyTable } from './KeyTable.tsx'
import { loadCountries } from './mapCharts.ts'

const HEIGHT_PX = 420

/** Countries or cities on a map, with the list of them beside it; choosing one narrows everything else to it. */
export function AnswerMap({
  what,
  by,
  answer,
  currency,
  label,
  choose,
  chosen,
  piece,
}: AnswerProps & {
  label: string
  /** Where the piece hangs that all this is of. */
  piece: Point | null
}) {
  const colours = useChartColours()
  const [dimension = 'country'] = by
  const shapes = useQuery({
    queryKey: ['country shapes'],
    queryFn: () => loadCountries().then(() => true),
    staleTime: Infinity,
  })
  const option = useMemo(() => {
    return mapChart(
      { what, by, answer, colours, currency, against: null, marks: [], chosen: [], hasPatterns: false },
      piece,
    )
  }, [what, by, answer, colours, currency, piece])
  if (shapes.isError)
    return (
      <Trouble
        error={shapes.error}
        retry={() => {
          void shapes.refetch()
        }}
      />
    )
  const keys = answer.rows.map((row) => row.keys[0] ?? '')
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 2fr) minmax(0, 1fr)', gap: 2 }}>
      <Box>
        <Box sx={{ aspectRatio: String(MAP_SHAPE) }}>
          {shapes.data ? (
            <Chart option={option} height="100%" label={label} />
          ) : (
            <Skeleton variant="rounded" height="100%" />
          )}
        </Box>
        <Typography variant="caption" color="textSecondary">
          {PLACE_NOTE} Shapes: Natural Earth, public domain; equal-area projection. Drag to move, scroll to
          zoom.
        </Typography>
      </Box>
      <Box
        sx={{ maxHeight: HEIGHT_PX + 20, overflowY: 'auto' }}
        tabIndex={0}
        role="region"
        aria-label="On the map"
      >
        <KeyTable
          by={dimension}
          what={what}
          answer={answer}
          currency={currency}
          chosen={chosen.filter((key) => keys.includes(key))}
          toggle={(key) => {
            choose([key])
          }}
        />
      </Box>
    </Box>
  )
}
