import { FormControlLabel, Stack, Switch, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import {
  answerKinds,
  answerTable,
  answerInWords,
  CHART_COLOURS,
  CHART_NAMES,
  crossedTimeKeys,
  drawShown,
  NOTHING_COUNTED,
  plainKind,
  questionTitle,
  type ChartKind,
  type ChartMark,
  type ExpectedPiece,
} from '@flimbo/core/charts'
import type { Dimension } from '@flimbo/core/dimensions'
import type { Answer, Measure } from '@flimbo/core/results'
import { lazy, Suspense, useMemo, useState } from 'react'
import { Chart, useChartColours } from '../charts/index.ts'
import { Sheet } from '../ui/index.ts'
import { AnswerTable } from './AnswerTable.tsx'
import { TakeAway } from './TakeAway.tsx'
import { usePiece } from './usePiece.ts'

const AnswerMap = lazy(async () => ({ default: (await import('./AnswerMap.tsx')).AnswerMap }))

type Shown = ChartKind | 'table'
export interface AnswerProps {
  readonly what: Measure
  readonly by: readonly Dimension[]
  readonly answer: Answer
  readonly currency: string
  readonly zone: string
  readonly from: string
  readonly to: string
  /** What figures are held against is called so; null for nothing. */
  readonly against: string | null
  readonly marks: readonly ChartMark[]
  /** What the pieces of time were expected to bring; empty where it is not known. */
  readonly expected: readonly ExpectedPiece[]
  /** Keys of the first dimension that everything is narrowed to. */
  readonly chosen: readonly string[]
  /** Narrows everything to what a part of the chart stands for. */
  readonly choose: (keys: readonly string[]) => void
}

/** The answer to the question: drawn in one of the ways it can be, or as a table; each to be taken away. */
export function AnswerSheet(props: AnswerProps) {
  const { what, by, answer, currency, zone, from, to, against, marks, expected, chosen, choose } = props
  const kinds: readonly [Shown, ...Shown[]] = [...answerKinds(what, by), 'table']
  const [wanted, setWanted] = useState<Shown | null>(null)
  const [hasPatterns, setPatterns] = useState(false)
  const shown = wanted !== null && kinds.includes(wanted) ? wanted : kinds[0]
  const colours = useChartColours()
  const piece = usePiece()
  const { given, kind, timeKeys, ...drawn } = useMemo(() => {
    const given = { what, by, answer, currency, zone, from, to, against, marks, expected, chosen }
    // A table has a usual chart that stands for it in a file.
    const kind = shown === 'table' || shown === 'map' ? plainKind(by) : shown
    const timeKeys = crossedTimeKeys(by, given)
    return { ...drawShown(kind, given, { colours, hasPatterns }, timeKeys), given, kind, timeKeys }
  }, [
    what,
    by,
    answer,
    currency,
    zone,
    from,
    to,
    against,
    marks,
    expected,
    chosen,
    hasPatterns,
    shown,
    colours,
  ])
  const title = questionTitle(what, by)
  const label = answerInWords(title, answer)
  // Pieces of time are there with nothing in them too; a table and a map say it themselves.
  const isEmpty = shown !== 'table' && shown !== 'map' && answer.rows.length === 0
  return (
    <Sheet
      title={title}
      aside={
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <FormControlLabel
            control={
              <Switch
                size="small"
                checked={hasPatterns}
                onChange={(_event, on) => {
                  setPatterns(on)
                }}
              />
            }
            label="Patterns"
          />
          <ToggleButtonGroup
            exclusive
            size="small"
            value={shown}
            aria-label="Drawn as"
            onChange={(_event, kind: Shown | null) => {
              if (kind) setWanted(kind)
            }}
          >
            {kinds.map((kind) => (
              <ToggleButton key={kind} value={kind}>
                {kind === 'table' ? 'Table' : CHART_NAMES[kind]}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <TakeAway
            title={title}
            chart={async () =>
              shown === 'map'
                ? (await import('./mapCharts.ts')).mapOnPaper(given, piece)
                : drawShown(kind, given, { colours: CHART_COLOURS.light, hasPatterns }, timeKeys)
            }
            table={() => answerTable(what, by, answer, against)}
          />
        </Stack>
      }
    >
      {shown === 'table' && <AnswerTable {...props} />}
      {shown === 'map' && (
        <Suspense fallback={null}>
          <AnswerMap {...props} label={label} piece={piece} />
        </Suspense>
      )}
      {isEmpty && (
        <Typography variant="body2" color="textSecondary">
          {NOTHING_COUNTED}
        </Typography>
      )}
      {shown !== 'table' && shown !== 'map' && !isEmpty && (
        <Chart
          option={drawn.option}
          height={drawn.height}
          label={label}
          choose={({ dataIndex, seriesIndex }) => {
            choose(drawn.keysAt(dataIndex, seriesIndex))
          }}
        />
      )}
    </Sheet>
  )
}
