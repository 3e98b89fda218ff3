import { Box, Skeleton, Typography } from '@mui/material'
import { besideFigure, heldInWords, measureText, whereHeld } from '@flimbo/core/charts'
import { dayRange, moment, number, quantity } from '@flimbo/core/formats'
import {
  measured,
  MEASURES,
  type Answer,
  type HeldAgainst,
  type Measure,
  type ResultsSummary,
} from '@flimbo/core/results'
import type { Apart } from '@flimbo/core/scans'
import { Sheet, When } from '../ui/index.ts'

const KINDS: Record<Apart, string> = {
  head: 'look without opening',
  prefetch: 'fetch ahead',
  preview: 'link preview',
  crawler: 'crawler',
  test: 'test scan',
  onward: 'second step of a scan',
}
const KINDS_MANY: Record<Apart, string> = {
  head: 'looks without opening',
  prefetch: 'fetches ahead',
  preview: 'link previews',
  crawler: 'crawlers',
  test: 'test scans',
  onward: 'second steps of scans',
}

function Figure({ name, value, beside }: { name: string; value: React.ReactNode; beside: string }) {
  return (
    <Box>
      <Typography variant="body2" color="textSecondary">
        {name}
      </Typography>
      <Typography
        component="p"
        sx={{ fontSize: '1.5rem', fontWeight: 650, lineHeight: 1.2, whiteSpace: 'nowrap' }}
      >
        {value}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {beside}
      </Typography>
    </Box>
  )
}

const SHOWN = [
  'scans',
  'uniques',
  'leads',
  'leadRate',
  'cost',
  'costPerScan',
] as const satisfies readonly Measure[]
/** Shown where a site reports. */
const OF_SITES = ['arrivals', 'goals', 'value', 'returnOnCost'] as const satisfies readonly Measure[]
const BESIDE: Partial<Record<Measure, string>> = {
  uniques: 'sum of daily uniques',
  cost: 'whole print runs',
  costPerScan: 'whole runs, scans of these days',
  arrivals: 'scans that reached the site',
  value: 'of goals reached',
  returnOnCost: 'value beyond the cost, of the cost',
}

interface Props {
  readonly total: Answer['total'] | undefined
  readonly summary: ResultsSummary | undefined
  readonly currency: string
  readonly zone: string
  readonly from: string
  readonly to: string
  readonly before: HeldAgainst | null
  /** Whether some of the scans are left out. */
  readonly isNarrowed: boolean
}

/** The figures of a period, what they were before, and what is kept apart from them. */
export function HowMany({ total, summary, currency, zone, from, to, before, isNarrowed }: Props) {
  const beside = (measure: Measure): string =>
    (total && besideFigure(measure, total, currency, whereHeld(before))) || (BESIDE[measure] ?? '\u00a0')
  return (
    <Sheet
      title="How many?"
      aside={
        <Typography variant="body2" color="textSecondary">
          {dayRange({ from, to })}, {zone}
          {before && ` · against ${heldInWords(before)}`}
        </Typography>
      }
    >
      {!total || !summary ? (
        <Skeleton variant="rounded" height={72} />
      ) : (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 4, rowGap: 1 }}>
          {[...SHOWN, ...(total.arrivals + total.goals > 0 ? OF_SITES : [])].map((measure) => (
            <Figure
              key={measure}
              name={MEASURES[measure].label}
              value={measureText(measure, measured(measure, total), currency)}
              beside={beside(measure)}
            />
          ))}
          <Figure
            name="Last scan"
            value={<When at={summary.ever.lastAt} zone={zone} />}
            beside={summary.ever.lastAt === null ? 'nobody yet' : moment(summary.ever.lastAt, zone)}
          />
          <Box sx={{ flex: '1 1 200px' }}>
            <Typography variant="body2" color="textSecondary">
              Since the beginning{isNarrowed ? ', not narrowed' : ''}
            </Typography>
            <Typography variant="body2">
              {quantity(summary.ever.scans, 'scan')}, {number(summary.ever.uniques)} unique
            </Typography>
            <Typography variant="body2" color="textSecondary">
              Excluded: {excluded(summary.apart)}
            </Typography>
          </Box>
        </Box>
      )}
    </Sheet>
  )
}

const excluded = (apart: ResultsSummary['apart']): string =>
  apart.length === 0
    ? 'nothing'
    : apart.map(({ kind, requests }) => quantity(requests, KINDS[kind], KINDS_MANY[kind])).join(', ')
