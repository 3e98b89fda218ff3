import { Stack, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { leadsApi } from '@flimbo/core/leads'
import { splitVerdict, verdictInWords, wilson } from '@flimbo/core/results'
import type { ExitTally, Lane } from '@flimbo/core/routing'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { NumberField } from '../conditions/index.ts'
import { number, percent, rateWithin, share } from '@flimbo/core/formats'

/** What came of a split test in the period: scans, and the leads they brought. */
export function SplitTable({
  lane,
  place,
  exits,
  routeId,
  period,
}: {
  lane: Lane
  place: number
  exits: readonly ExitTally[]
  routeId: number
  /** Days of the campaign's zone. */
  period: { readonly from?: string | undefined; readonly to?: string | undefined }
}) {
  const [base, setBase] = useState(5)
  const [lift, setLift] = useState(1)
  const found = useAnswer(leadsApi.variants, { params: { id: routeId }, query: period })
  if (lane.outcome.kind !== 'split') return null
  const { variants } = lane.outcome
  const counts = new Map(exits.filter(({ exit }) => exit === lane.id).map((each) => [each.variant, each]))
  const all = [...counts.values()].reduce((sum, { scans }) => sum + scans, 0)
  const weights = variants.reduce((sum, { weight, ended }) => sum + (ended ? 0 : weight), 0)
  const leads = new Map(
    (found.data?.rows ?? []).filter(({ exit }) => exit === lane.id).map((each) => [each.variant, each.leads]),
  )
  const running = variants.filter(({ ended }) => !ended)
  const verdict = splitVerdict(
    running.map(({ id }) => {
      const trials = counts.get(id)?.uniques ?? 0
      // Who answers twice is one visitor.
      return { hits: Math.min(trials, leads.get(id) ?? 0), trials }
    }),
    base / 100,
    lift / 100,
  )
  const judged = new Map(running.map(({ id }, i) => [id, verdict.variants[i]]))
  return (
    <Stack sx={{ gap: 1 }}>
      <Typography variant="h3">Split of lane {place}</Typography>
      <Table size="small" aria-label={`Split of lane ${String(place)}`}>
        <TableHead>
          <TableRow>
            <TableCell>Variant</TableCell>
            <TableCell align="right">Scans</TableCell>
            <TableCell align="right">Unique</TableCell>
            <TableCell align="right">Share (95 %)</TableCell>
            <TableCell align="right">Weight</TableCell>
            <TableCell align="right">Leads</TableCell>
            <TableCell align="right">Leads a visitor (95 %)</TableCell>
            <TableCell align="right">Against the best other (95 %)</TableCell>
            <TableCell align="right">Chance of being best</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {variants.map(({ id, name, weight, ended }) => {
            const { scans = 0, uniques = 0 } = counts.get(id) ?? {}
            const part = all === 0 ? null : wilson(scans, all)
            const { rate = null, ahead = null, chance = null } = judged.get(id) ?? {}
            return (
              <TableRow key={id}>
                <TableCell component="th" scope="row">
                  {name}
                </TableCell>
                <TableCell align="right">{number(scans)}</TableCell>
                <TableCell align="right">{number(uniques)}</TableCell>
                <TableCell align="right">{rateWithin(part)}</TableCell>
                <TableCell align="right">{ended ? 'ended' : share(weight, weights)}</TableCell>
                <TableCell align="right">{number(leads.get(id) ?? 0)}</TableCell>
                <TableCell align="right">{rateWithin(rate)}</TableCell>
                <TableCell align="right">{rateWithin(ahead)}</TableCell>
                <TableCell align="right">{rate && chance !== null ? percent(chance) : '–'}</TableCell>
              </TableRow>
            )
          })}
        </TableBody>
      </Table>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <NumberField
          label="Expected conversion rate, %"
          value={base}
          change={(value) => {
            setBase(Math.min(99, Math.max(0.1, value ?? 5)))
          }}
          width={100}
        />
        <NumberField
          label="Difference to detect, %"
          value={lift}
          change={(value) => {
            setLift(Math.min(90, Math.max(0.1, value ?? 1)))
          }}
          width={170}
        />
        <Typography variant="body2" role="status">
          {verdictInWords(
            verdict,
            running.map(({ name }) => name),
          )}
        </Typography>
      </Stack>
      <Typography variant="caption" color="textSecondary">
        A visitor keeps a variant for the day; leads are counted by the scan that brought them.
      </Typography>
    </Stack>
  )
}
