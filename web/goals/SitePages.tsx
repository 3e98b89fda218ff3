import { Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { number, quantity } from '@flimbo/core/formats'
import { goalsApi } from '@flimbo/core/goals'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Sheet } from '../ui/index.ts'
import { ALL_DAYS } from './GoalEvents.tsx'

const SHOWN = 10

/** Seconds as they are read. */
export const lasting = (seconds: number): string =>
  seconds < 60 ? `${String(seconds)} s` : `${String(Math.floor(seconds / 60))} min ${String(seconds % 60)} s`

/** The pages of the site that visitors looked at after a scan; nothing where no site reports. */
export function SitePages() {
  const { id: campaignId } = useCampaign()
  const [isOpen, setOpen] = useState(false)
  const { data } = useAnswer(goalsApi.pages, { query: { campaignId, ...ALL_DAYS } })
  const rows = data?.rows ?? []
  if (rows.length === 0) return null
  return (
    <Sheet title="Pages of the site" pad={false}>
      <Table size="small" aria-label="Pages of the site">
        <TableHead>
          <TableRow>
            <TableCell>Page</TableCell>
            <TableCell align="right">Views</TableCell>
            <TableCell align="right">Scans</TableCell>
            <TableCell align="right">Median time on it</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {(isOpen ? rows : rows.slice(0, SHOWN)).map(({ page, views, scans, medianSeconds }) => (
            <TableRow key={page}>
              <TableCell sx={{ overflowWrap: 'anywhere' }}>
                <Typography variant="mono">{page}</Typography>
              </TableCell>
              <TableCell align="right">{number(views)}</TableCell>
              <TableCell align="right">{number(scans)}</TableCell>
              <TableCell align="right">{lasting(medianSeconds)}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {rows.length > SHOWN && !isOpen && (
        <Button
          color="inherit"
          sx={{ m: 1 }}
          onClick={() => {
            setOpen(true)
          }}
        >
          All {quantity(rows.length, 'page')}
        </Button>
      )}
    </Sheet>
  )
}
