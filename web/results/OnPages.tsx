import { Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { number } from '@flimbo/core/formats'
import { pageResultsApi } from '@flimbo/core/pages'
import type { Scope } from '@flimbo/core/scans'
import { useAnswer } from '../api/index.ts'
import { Sheet } from '../ui/index.ts'

const SHOWN = 50

/** What scans of each piece did on the pages they were shown; nothing where none was shown one. */
export function OnPages({ scope, from, to }: { scope: Scope; from: string; to: string }) {
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
            <TableCell align="right">Opened a page</TableCell>
            <TableCell align="right">Followed links</TableCell>
            <TableCell align="right">Took files, contacts, events</TableCell>
            <TableCell align="right">Began to play</TableCell>
            <TableCell align="right">Played to the end</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.slice(0, SHOWN).map(({ codeId: id, name, opened, followed, taken, played, finished }) => (
            <TableRow key={id}>
              <TableCell>{name}</TableCell>
              {[opened, followed, taken, played, finished].map((count, i) => (
                <TableCell key={i} align="right">
                  {number(count)}
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
    </Sheet>
  )
}
