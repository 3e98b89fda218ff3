import { Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { number } from '@flimbo/core/formats'
import { EVENT_COUNTS, pageResultsApi, type EventCount } from '@flimbo/core/pages'
import type { Scope } from '@flimbo/core/scans'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { EventRows, type ShownRows } from '../pages/index.ts'
import { FigureLink, Sheet } from '../ui/index.ts'

const SHOWN = 50

const HEADINGS: Readonly<Record<EventCount, string>> = {
  opened: 'Opened a page',
  followed: 'Followed links',
  taken: 'Took files, contacts, events',
  played: 'Began to play',
  finished: 'Played to the end',
}

interface Props {
  readonly scope: Scope
  readonly from: string
  readonly to: string
  readonly zone: string
}

/** What scans of each piece did on the pages they were shown; nothing where none was shown one. */
export function OnPages({ scope, from, to, zone }: Props) {
  const [shown, show] = useState<ShownRows>(null)
  const { campaignId, routeId, codeId } = scope
  const { data } = useAnswer(pageResultsApi.pieces, { query: { campaignId, routeId, codeId, from, to } })
  const rows = data?.rows ?? []
  if (rows.length === 0) return null
  return (
    <Sheet title="What did they do on pages?" pad={false}>
      <Table size="small" aria-label="On pages, by piece">
        <TableHead>
          <TableRow>
            <TableCell>Piece</TableCell>
            {EVENT_COUNTS.map((count) => (
              <TableCell key={count} align="right">
                {HEADINGS[count]}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.slice(0, SHOWN).map((piece) => (
            <TableRow key={piece.codeId}>
              <TableCell>{piece.name}</TableCell>
              {EVENT_COUNTS.map((count) => (
                <TableCell key={count} align="right">
                  <FigureLink
                    count={piece[count]}
                    of={`${piece.name}, ${HEADINGS[count]}`}
                    show={() => {
                      const words = `${piece.name}, ${HEADINGS[count]}`
                      show({ words, filter: { codeId: piece.codeId, count } })
                    }}
                  />
                </TableCell>
              ))}
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {rows.length > SHOWN && (
        <Typography variant="body2" color="textSecondary" sx={{ p: 1.5 }}>
          The {String(SHOWN)} pieces with the most openings, of {number(rows.length)}. Choose a piece or a
          route above for others.
        </Typography>
      )}
      <EventRows scope={{ campaignId, routeId, codeId, from, to }} zone={zone} shown={shown} show={show} />
    </Sheet>
  )
}
