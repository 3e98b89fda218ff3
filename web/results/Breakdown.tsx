import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import type { Share } from '@flimbo/core/results'
import { useState, type ReactNode } from 'react'
import { number, share } from '@flimbo/core/formats'

const FIRST = 8

/** One way to part the scans: a row a value, with its count, its share and a bar of that length. */
export function Breakdown({
  title,
  rows,
  all,
  nameOf,
  total = rows.length,
  note,
  more = [],
}: {
  title: string
  rows: readonly Share[]
  all: number
  nameOf: (row: Share) => ReactNode
  total?: number
  note?: string
  /** Columns beside the counts of scans. */
  more?: readonly { heading: string; width: number; cell: (row: Share) => ReactNode }[]
}) {
  const [open, setOpen] = useState(false)
  const shown = open ? rows : rows.slice(0, FIRST)
  return (
    <Box sx={{ minWidth: 0 }}>
      <Table
        size="small"
        aria-label={title}
        sx={{ tableLayout: 'fixed', '& td, & th': { px: 0.5, py: 0.5 } }}
      >
        <TableHead>
          <TableRow>
            <TableCell component="th" scope="col" sx={{ fontWeight: 650 }}>
              {title}
            </TableCell>
            <TableCell align="right" sx={{ width: 56 }}>
              Scans
            </TableCell>
            <TableCell align="right" sx={{ width: 56 }}>
              Unique
            </TableCell>
            <TableCell align="right" sx={{ width: 54 }}>
              Share
            </TableCell>
            {more.map(({ heading, width }) => (
              <TableCell key={heading} align="right" sx={{ width }}>
                {heading}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {shown.map((row, i) => (
            <TableRow key={`${row.key}${String(i)}`}>
              <TableCell component="th" scope="row" sx={{ position: 'relative', fontWeight: 400 }}>
                <Box
                  aria-hidden
                  sx={{
                    position: 'absolute',
                    left: 0,
                    bottom: 2,
                    height: 3,
                    width: `${String(all === 0 ? 0 : (row.scans / all) * 100)}%`,
                    bgcolor: 'primary.main',
                  }}
                />
                <Typography variant="body2" component="span" noWrap sx={{ display: 'block' }}>
                  {nameOf(row)}
                </Typography>
              </TableCell>
              <TableCell align="right">{number(row.scans)}</TableCell>
              <TableCell align="right">{number(row.uniques)}</TableCell>
              <TableCell align="right">{share(row.scans, all)}</TableCell>
              {more.map(({ heading, cell }) => (
                <TableCell key={heading} align="right">
                  {cell(row)}
                </TableCell>
              ))}
            </TableRow>
          ))}
          {rows.length === 0 && (
            <TableRow>
              <TableCell colSpan={4 + more.length}>
                <Typography variant="body2" color="textSecondary">
                  No scan in these days
                </Typography>
              </TableCell>
            </TableRow>
          )}
        </TableBody>
      </Table>
      {rows.length > FIRST && (
        <Button
          color="inherit"
          onClick={() => {
            setOpen(!open)
          }}
          aria-expanded={open}
        >
          {open ? 'Fewer' : `All ${number(rows.length)}`}
        </Button>
      )}
      {total > rows.length && open && (
        <Typography variant="caption" color="textSecondary">
          {number(total - rows.length)} smaller ones are in the rows.
        </Typography>
      )}
      {note && (
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mt: 0.5 }}>
          {note}
        </Typography>
      )}
    </Box>
  )
}
