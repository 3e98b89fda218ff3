import { Box, Skeleton, Typography } from '@mui/material'
import { COUNTRY_MAP, MAP_SHAPE, mapChart } from '@flimbo/core/charts'
import { codesApi } from '@flimbo/core/codes'
import { PLACE_NOTE } from '@flimbo/core/scans'
import { LinesChart, MapChart, ScatterChart } from 'echarts/charts'
import { GeoComponent } from 'echarts/components'
import { use as register } from 'echarts/core'
import { useMemo } from 'react'
import { useQuery } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { Chart, loadMap, useChartColours } from '../charts/index.ts'
import { Trouble } from '../ui/index.ts'
import type { AnswerProps } from './AnswerSheet.tsx'
import { KeyTable } from './KeyTable.tsx'

register([LinesChart, MapChart, ScatterChart, GeoComponent])

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
}: AnswerProps & { label: string }) {
  const colours = useChartColours()
  const [dimension = 'country'] = by
  const codeId = Number(useSearchParams()[0].get('code')) || undefined
  const code = useAnswer(
    codesApi.get,
    { params: { id: codeId ?? 0 } },
    { enabled: codeId !== undefined },
  ).data
  const shapes = useQuery({
    queryKey: ['country shapes'],
    queryFn: () => loadMap(COUNTRY_MAP).then(() => true),
    staleTime: Infinity,
  })
  const option = useMemo(() => {
    const { latitude = null, longitude = null } = (codeId !== undefined && code) || {}
    const piece = latitude === null || longitude === null ? null : { latitude, longitude }
    return mapChart(
      { what, by, answer, colours, currency, against: null, marks: [], chosen: [], hasPatterns: false },
      piece,
    )
  }, [what, by, answer, colours, currency, codeId, code])
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
