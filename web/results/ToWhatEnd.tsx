import {
  Box,
  Button,
  Link,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import { CHART_COLOURS, intervalsChart, measureText } from '@flimbo/core/charts'
import { number, rateWithin } from '@flimbo/core/formats'
import { pageResultsApi } from '@flimbo/core/pages'
import { funnelRows, measured, type Answer, type FunnelStep } from '@flimbo/core/results'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { Sheet } from '../ui/index.ts'
import { TakeAway } from './TakeAway.tsx'
import type { AskedResults } from './useResults.ts'

const STEPS: Readonly<Record<FunnelStep, string>> = {
  scans: 'Scanned',
  opened: 'Were shown a page',
  arrivals: 'Arrived on the site',
  leads: 'Answered a form',
  goals: 'Reached a goal',
}

/** Where the rows of a step are; null where they are on this screen. */
function rowsOf(step: FunnelStep, { of, campaign }: AskedResults): string | null {
  if (!campaign || (step !== 'leads' && step !== 'goals')) return null
  const base = `/campaigns/${String(campaign.id)}`
  if (step === 'goals') return `${base}/goals`
  return of.codeId === undefined ? `${base}/leads` : `${base}/leads?code=${String(of.codeId)}`
}

/** How far scans got, from the scan to what was wanted, and what it was worth. */
export function ToWhatEnd({
  asked,
  total,
  currency,
}: {
  asked: AskedResults
  total: Answer['total']
  currency: string
}) {
  const { of, from, to, campaign, isNarrowed } = asked
  const { campaignId, routeId, codeId } = of
  const pieces = useAnswer(
    pageResultsApi.pieces,
    { query: { campaignId, routeId, codeId, from, to } },
    { enabled: campaign !== null && !isNarrowed },
  )
  const opened = isNarrowed ? null : (pieces.data?.rows.reduce((sum, row) => sum + row.opened, 0) ?? null)
  const rows = funnelRows(total, opened)
  const most = Math.max(1, ...rows.map(({ count }) => count))
  return (
    <Sheet
      title="To what end?"
      aside={
        <Stack direction="row" spacing={1}>
          {campaign && (
            <Button component={RouterLink} to={`/campaigns/${String(campaign.id)}/goals`} color="inherit">
              Goals on the site
            </Button>
          )}
          <TakeAway
            title="How far scans got"
            chart={() =>
              intervalsChart({
                rows: rows.map(({ step, count }) => ({ name: STEPS[step], value: count, between: null })),
                write: number,
                mark: null,
                colours: CHART_COLOURS.light,
              })
            }
            table={() => ({
              headings: ['Step', 'Number', 'Of scans', 'From (95 %)', 'To (95 %)'],
              rows: rows.map(({ step, count, share }) => [
                STEPS[step],
                count,
                share?.value ?? null,
                share?.low ?? null,
                share?.high ?? null,
              ]),
            })}
          />
        </Stack>
      }
    >
      <Table
        size="small"
        aria-label="How far scans got"
        sx={{ tableLayout: 'fixed', '& td, & th': { py: 0.5, px: 0.5 } }}
      >
        <TableHead>
          <TableRow>
            <TableCell sx={{ width: 190 }}>Step</TableCell>
            <TableCell aria-hidden />
            <TableCell align="right" sx={{ width: 110 }}>
              Number
            </TableCell>
            <TableCell align="right" sx={{ width: 250 }}>
              Of scans (95 % interval)
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row) => {
            const to_ = rowsOf(row.step, asked)
            return (
              <TableRow key={row.step}>
                <TableCell component="th" scope="row">
                  {STEPS[row.step]}
                </TableCell>
                <TableCell aria-hidden>
                  <Box
                    sx={{
                      height: 14,
                      bgcolor: 'primary.main',
                      width: `${String((100 * row.count) / most)}%`,
                    }}
                  />
                </TableCell>
                <TableCell align="right">
                  {to_ === null ? (
                    number(row.count)
                  ) : (
                    <Link component={RouterLink} to={to_}>
                      {number(row.count)}
                    </Link>
                  )}
                </TableCell>
                <TableCell align="right">{row.share ? rateWithin(row.share) : ''}</TableCell>
              </TableRow>
            )
          })}
        </TableBody>
      </Table>
      <Typography variant="body2" color="textSecondary" sx={{ mt: 1 }}>
        {total.goals + total.arrivals === 0
          ? 'What happens on your own site is counted once it reports goals.'
          : `Value ${measureText('value', total.value, currency)}, cost ${measureText('cost', total.cost, currency)}: ${measureText('costPerGoal', measured('costPerGoal', total), currency)} for each goal. Visitors whose browsers ask not to be tracked, or run no script, arrive unseen.`}
      </Typography>
    </Sheet>
  )
}
