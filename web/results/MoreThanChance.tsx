import { Stack, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { CHART_COLOURS, heldInWords, intervalsChart, keyLabel } from '@flimbo/core/charts'
import { DIMENSIONS, isOfKind, type Dimension } from '@flimbo/core/dimensions'
import { percent, quantity, rateWithin, withMinus } from '@flimbo/core/formats'
import {
  compareRates,
  FALSE_DISCOVERIES,
  MEASURES,
  type Answer,
  type HeldAgainst,
  type Measure,
} from '@flimbo/core/results'
import { useMemo } from 'react'
import { Sheet } from '../ui/index.ts'
import { TakeAway } from './TakeAway.tsx'

const SHOWN = 12
/** A difference of two rates, in points of a hundred. */
const points = (part: number) => `${part < 0 ? '' : '+'}${withMinus((part * 100).toFixed(1))}`
const chance = (p: number) => (p < 0.001 ? 'below 0.1 %' : percent(p))

/** Which keys of a rate differ from the others, or from before, by more than chance; nothing where no rate is asked. */
export function MoreThanChance({
  what,
  by,
  answer,
  before,
}: {
  what: Measure
  by: readonly Dimension[]
  answer: Answer | undefined
  before: HeldAgainst | null
}) {
  const [dimension] = by
  const isHeld = before !== null
  const found = useMemo(() => {
    if (MEASURES[what].form !== 'share' || !answer || dimension === undefined || by.length > 1) return []
    // Pieces of time follow each other: one against all others says little, but against before it does.
    if (isOfKind(dimension, 'time') && !isHeld) return []
    return compareRates(what, answer.rows, answer.total, isHeld ? 'before' : 'others')
  }, [what, by, dimension, answer, isHeld])
  if (!answer || dimension === undefined || found.length < 2) return null
  const nameOf = (key: string) => keyLabel(dimension, key, answer.names)
  const sure = found.filter(({ isMoreThanChance }) => isMoreThanChance).length
  const other = before ? heldInWords(before) : 'All others'
  return (
    <Sheet
      title="More than chance?"
      pad={false}
      aside={
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <Typography variant="body2" color="textSecondary">
            {sure === 0
              ? 'No difference is more than chance'
              : `${quantity(sure, 'difference')} more than chance`}
          </Typography>
          <TakeAway
            title={`${MEASURES[what].label}: differences`}
            chart={() =>
              intervalsChart({
                rows: found.slice(0, SHOWN).map(({ keys: [key = ''], above }) => ({
                  name: nameOf(key),
                  value: above.value,
                  between: above,
                })),
                write: (part) => `${points(part)} points`,
                mark: { at: 0, name: other },
                colours: CHART_COLOURS.light,
              })
            }
            table={() => ({
              headings: [
                DIMENSIONS[dimension].label,
                MEASURES[what].label,
                other,
                'Difference',
                'From (95 %)',
                'To (95 %)',
                'By chance alone',
                'Verdict',
              ],
              rows: found.map(({ keys: [key = ''], rate, other: held, above, pValue, isMoreThanChance }) => [
                nameOf(key),
                rate.value,
                held.value,
                above.value,
                above.low,
                above.high,
                pValue,
                verdict(above.value, isMoreThanChance),
              ]),
            })}
          />
        </Stack>
      }
    >
      <Table size="small" aria-label="Differences, the surest first">
        <TableHead>
          <TableRow>
            <TableCell>{DIMENSIONS[dimension].label}</TableCell>
            <TableCell align="right">{MEASURES[what].label}</TableCell>
            <TableCell align="right">{other}</TableCell>
            <TableCell align="right">Difference (95 % interval)</TableCell>
            <TableCell align="right">By chance alone</TableCell>
            <TableCell>Verdict</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {found
            .slice(0, SHOWN)
            .map(({ keys: [key = ''], rate, other: held, above, pValue, isMoreThanChance }) => (
              <TableRow key={key}>
                <TableCell component="th" scope="row">
                  {nameOf(key)}
                </TableCell>
                <TableCell align="right">{rateWithin(rate)}</TableCell>
                <TableCell align="right">{rateWithin(held)}</TableCell>
                <TableCell align="right">
                  {points(above.value)} points ({points(above.low)} to {points(above.high)})
                </TableCell>
                <TableCell align="right">{chance(pValue)}</TableCell>
                <TableCell>{verdict(above.value, isMoreThanChance)}</TableCell>
              </TableRow>
            ))}
        </TableBody>
      </Table>
      <Typography variant="body2" color="textSecondary" sx={{ p: 1.5 }}>
        {found.length > SHOWN && `The ${String(SHOWN)} surest of ${String(found.length)}. `}
        Fisher’s exact test, corrected for {String(found.length)} comparisons by Benjamini and Hochberg: of
        the differences that are called more than chance, {percent(FALSE_DISCOVERIES)} are expected to be
        none.
      </Typography>
    </Sheet>
  )
}

function verdict(above: number, isMoreThanChance: boolean): string {
  if (!isMoreThanChance) return 'may be chance'
  return above > 0 ? 'higher' : 'lower'
}
