import {
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
import { CHART_COLOURS, intervalsChart, keyLabel, measureText } from '@flimbo/core/charts'
import { quantity } from '@flimbo/core/formats'
import { MEASURES, resultsApi, whatNext, type Earning, type EarningPiece } from '@flimbo/core/results'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { Sheet } from '../ui/index.ts'
import { TakeAway } from './TakeAway.tsx'
import type { AskedResults } from './useResults.ts'

const FIRST = 10
/** More are read in the table. */
const DRAWN = 25
const WORDS: Readonly<Record<Earning, string>> = {
  earns: 'earns its place',
  open: 'too early to say',
  loses: 'does not',
}
const amount = (value: number) => (value >= 10 ? String(Math.round(value)) : value.toFixed(2))

/** Which pieces earn their place and which do not; nothing where no piece has a cost. */
export function WhatNextSheet({ asked, currency }: { asked: AskedResults; currency: string }) {
  const { of, from, to, campaign, isNarrowed } = asked
  const [isOpen, setOpen] = useState(false)
  const { data } = useAnswer(
    resultsApi.ask,
    { body: { ...of, from, to, questions: [{ what: 'cost', by: ['piece'], top: 500 }] } },
    // What a piece cost cannot be parted by who scanned it.
    { enabled: campaign !== null && of.codeId === undefined && !isNarrowed },
  )
  const answer = data?.answers[0]
  if (!campaign || of.codeId !== undefined || isNarrowed || !answer) return null
  const found = whatNext(answer.rows)
  if (!found || found.pieces.length < 2) return null
  const { by, measure, pieces } = found
  const nameOf = (key: string) => keyLabel('piece', key, answer.names)
  const brought = MEASURES[by].label.toLowerCase()
  const earning = pieces.filter((piece) => piece.earning === 'earns').length
  return (
    <Sheet
      title="What next?"
      pad={false}
      aside={
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <Typography variant="body2" color="textSecondary">
            {quantity(earning, 'piece earns its place', 'pieces earn their place')}
          </Typography>
          <TakeAway
            title={`${MEASURES[by].label} for each ${currency}, by piece`}
            chart={() =>
              intervalsChart({
                rows: pieces
                  .slice(0, DRAWN)
                  .map(({ key, perCost }) => ({ name: nameOf(key), value: perCost.value, between: perCost })),
                write: amount,
                mark: { at: measure, name: by === 'value' ? 'cost' : 'all pieces' },
                colours: CHART_COLOURS.light,
              })
            }
            table={() => ({
              headings: [
                'Piece',
                'Cost',
                `${MEASURES[by].label} for each ${currency}`,
                'From (95 %)',
                'To (95 %)',
                'Verdict',
              ],
              rows: pieces.map(({ key, cost, perCost, earning: verdict }) => [
                nameOf(key),
                cost,
                perCost.value,
                perCost.low,
                perCost.high,
                WORDS[verdict],
              ]),
            })}
          />
        </Stack>
      }
    >
      <Table size="small" aria-label="Pieces by what they bring for their cost">
        <TableHead>
          <TableRow>
            <TableCell>Piece</TableCell>
            <TableCell align="right">Cost</TableCell>
            <TableCell align="right">
              {MEASURES[by].label} for each {currency} (95 % interval)
            </TableCell>
            <TableCell>Verdict</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {(isOpen ? pieces : pieces.slice(0, FIRST)).map((piece: EarningPiece) => (
            <TableRow key={piece.key}>
              <TableCell component="th" scope="row">
                <Link
                  component={RouterLink}
                  to={`/campaigns/${String(campaign.id)}/results?code=${piece.key}`}
                >
                  {nameOf(piece.key)}
                </Link>
              </TableCell>
              <TableCell align="right">{measureText('cost', piece.cost, currency)}</TableCell>
              <TableCell align="right">
                {amount(piece.perCost.value)} ({amount(piece.perCost.low)} to {amount(piece.perCost.high)})
              </TableCell>
              <TableCell>{WORDS[piece.earning]}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {pieces.length > FIRST && !isOpen && (
        <Button
          color="inherit"
          sx={{ m: 1 }}
          onClick={() => {
            setOpen(true)
          }}
        >
          All {quantity(pieces.length, 'piece')}
        </Button>
      )}
      <Typography variant="body2" color="textSecondary" sx={{ p: 1.5 }}>
        {by === 'value'
          ? 'A piece earns its place where it brought in more than its whole print run cost, even at the lower end of what chance allows.'
          : `A piece earns its place where it brought more ${brought} for its cost than all pieces together, ${amount(measure)} for each ${currency}, even at the lower end of what chance allows.`}{' '}
        Costs are those of whole print runs, {brought} those of these days.
      </Typography>
    </Sheet>
  )
}
