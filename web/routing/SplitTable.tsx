import { Stack, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { trialsNeeded, wilson } from '@flimbo/core/results'
import type { ExitTally, Lane } from '@flimbo/core/routing'
import { useState } from 'react'
import { NumberField } from '../conditions/index.ts'
import { number, share } from '@flimbo/core/formats'

const percent = (part: number) => `${(100 * part).toFixed(1)} %`

/** What came of a split test in the period. Nothing is called best here: that takes what people did afterwards. */
export function SplitTable({
  lane,
  place,
  exits,
}: {
  lane: Lane
  place: number
  exits: readonly ExitTally[]
}) {
  const [base, setBase] = useState(5)
  const [lift, setLift] = useState(1)
  if (lane.outcome.kind !== 'split') return null
  const { variants } = lane.outcome
  const counts = new Map(exits.filter(({ exit }) => exit === lane.id).map((each) => [each.variant, each]))
  const all = [...counts.values()].reduce((sum, { scans }) => sum + scans, 0)
  const weights = variants.reduce((sum, { weight, ended }) => sum + (ended ? 0 : weight), 0)
  const needed = trialsNeeded(base / 100, lift / 100)
  const fewest = Math.min(
    ...variants.filter(({ ended }) => !ended).map(({ id }) => counts.get(id)?.uniques ?? 0),
  )
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
          </TableRow>
        </TableHead>
        <TableBody>
          {variants.map(({ id, name, weight, ended }) => {
            const { scans = 0, uniques = 0 } = counts.get(id) ?? {}
            const found = all === 0 ? null : wilson(scans, all)
            return (
              <TableRow key={id}>
                <TableCell component="th" scope="row">
                  {name}
                </TableCell>
                <TableCell align="right">{number(scans)}</TableCell>
                <TableCell align="right">{number(uniques)}</TableCell>
                <TableCell align="right">
                  {found ? `${percent(found.value)} (${percent(found.low)} to ${percent(found.high)})` : '–'}
                </TableCell>
                <TableCell align="right">{ended ? 'ended' : share(weight, weights)}</TableCell>
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
          each variant needs {number(needed)} visitors; the fewest so far are {number(fewest)}
          {fewest < needed ? `, so ${number(needed - fewest)} more` : ''}.
        </Typography>
      </Stack>
      <Typography variant="caption" color="textSecondary">
        No variant is called better: nothing is known yet of what visitors did. A visitor keeps a variant for
        the day.
      </Typography>
    </Stack>
  )
}
