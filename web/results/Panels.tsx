import { Box, Link, Skeleton, Typography } from '@mui/material'
import { toggleKey, withoutDimension, type Dimension } from '@flimbo/core/dimensions'
import { resultsApi } from '@flimbo/core/results'
import { PLACE_NOTE } from '@flimbo/core/scans'
import { useAnswer } from '../api/index.ts'
import { Sheet } from '../ui/index.ts'
import { KeyTable } from './KeyTable.tsx'
import type { AskedResults } from './useResults.ts'
import { WeekGrid } from './WeekGrid.tsx'

interface Panel {
  readonly title: string
  readonly dimensions: readonly Dimension[]
}
/** What the figures are parted by beside the question, from left to right. */
const PANELS: readonly Panel[] = [
  { title: 'When in the week?', dimensions: ['hourOfWeek'] },
  { title: 'Where?', dimensions: ['country', 'city'] },
  { title: 'On what?', dimensions: ['device', 'system', 'browser', 'language'] },
  { title: 'Through what?', dimensions: ['channel', 'medium', 'piece'] },
]
const ALL_CAMPAIGNS: Panel = { title: 'Through what?', dimensions: ['campaign', 'medium', 'piece'] }
const SIDE_BY_SIDE = { display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 2 }
/** Those with long names have room for them. */
const WIDE: ReadonlySet<Dimension> = new Set(['piece'])
const WHERE = { ...SIDE_BY_SIDE, gridTemplateColumns: 'minmax(0, 2fr) minmax(0, 3fr)' }
const ROWS = 200

function gridOf(dimensions: readonly Dimension[]) {
  if (dimensions.length === 1) return {}
  return dimensions.includes('city') ? WHERE : SIDE_BY_SIDE
}

/** The same figures by what else they can be parted by; choosing anything narrows all the others to it. */
export function Panels({ asked, currency }: { asked: AskedResults; currency: string }) {
  const { of, from, to, view, campaign, ask } = asked
  const panels = campaign ? PANELS : [...PANELS.slice(0, -1), ALL_CAMPAIGNS]
  const shown = panels.flatMap(({ dimensions }) => dimensions)
  const { data } = useAnswer(resultsApi.ask, {
    body: {
      ...of,
      from,
      to,
      questions: shown.map((dimension) => ({
        what: view.what,
        by: [dimension],
        filters: withoutDimension(view.filters, dimension),
        top: ROWS,
      })),
    },
  })
  if (data?.answers.length !== shown.length) return <Skeleton variant="rounded" height={420} />
  const part = (dimension: Dimension) => {
    const answer = data.answers[shown.indexOf(dimension)]
    if (!answer) return null
    const props = {
      what: view.what,
      answer,
      currency,
      chosen: view.filters[dimension] ?? [],
      toggle(key: string) {
        ask({ filters: toggleKey(view.filters, dimension, key) })
      },
    }
    if (dimension === 'hourOfWeek') return <WeekGrid {...props} />
    return <KeyTable by={dimension} {...props} {...(dimension === 'city' ? { note: PLACE_NOTE } : {})} />
  }
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 2 }}>
      {panels.map(({ title, dimensions }) => (
        <Sheet key={title} title={title}>
          <Box sx={gridOf(dimensions)}>
            {dimensions.map((dimension) => (
              <Box
                key={dimension}
                sx={{ minWidth: 0, ...(WIDE.has(dimension) ? { gridColumn: '1 / -1' } : {}) }}
              >
                {part(dimension)}
              </Box>
            ))}
          </Box>
          {dimensions.includes('city') && (
            <Typography variant="caption">
              <Link href="https://db-ip.com" target="_blank" rel="noreferrer">
                IP Geolocation by DB-IP
              </Link>
              , CC BY 4.0
            </Typography>
          )}
        </Sheet>
      ))}
    </Box>
  )
}
