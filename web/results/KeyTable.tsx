import {
  Box,
  Button,
  ButtonBase,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import { keyLabel, measureText } from '@flimbo/core/charts'
import { DIMENSIONS, type Dimension } from '@flimbo/core/dimensions'
import { number, share } from '@flimbo/core/formats'
import { measured, MEASURES, type Answer, type Measure } from '@flimbo/core/results'
import { useState } from 'react'

const FIRST = 8

/** Figures by one dimension, beside those of others: choosing a row narrows all the others to it. */
export function KeyTable({
  by,
  what,
  answer,
  currency,
  chosen,
  toggle,
  note,
}: {
  by: Dimension
  what: Measure
  answer: Answer
  currency: string
  /** Keys that the other figures are narrowed to. */
  chosen: readonly string[]
  toggle: (key: string) => void
  note?: string
}) {
  const [isOpen, setOpen] = useState(false)
  const rows = answer.rows.filter(
    ({ scans, leads, arrivals, goals, cost }) => scans + leads + arrivals + goals > 0 || cost !== null,
  )
  const isOfScans = what === 'scans'
  const most = Math.max(0, ...rows.map((row) => measured(what, row) ?? 0))
  const { label } = DIMENSIONS[by]
  return (
    <Box sx={{ minWidth: 0 }}>
      <Table
        size="small"
        aria-label={label}
        sx={{ tableLayout: 'fixed', '& td, & th': { px: 0.5, py: 0.25 } }}
      >
        <TableHead>
          <TableRow>
            <TableCell component="th" scope="col" sx={{ fontWeight: 650 }}>
              {label}
            </TableCell>
            <TableCell align="right" sx={{ width: 64 }}>
              Scans
            </TableCell>
            <TableCell align="right" sx={{ width: isOfScans ? 58 : 96 }}>
              {isOfScans ? 'Share' : MEASURES[what].label}
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {(isOpen ? rows : rows.slice(0, FIRST)).map((row) => {
            const [key = ''] = row.keys
            const isChosen = chosen.includes(key)
            return (
              <TableRow
                key={key}
                hover
                selected={isChosen}
                sx={{ cursor: 'pointer' }}
                // The button’s clicks come here too.
                onClick={() => {
                  toggle(key)
                }}
              >
                <TableCell component="th" scope="row" sx={{ position: 'relative', fontWeight: 400 }}>
                  <Bar part={most === 0 ? 0 : (measured(what, row) ?? 0) / most} />
                  <ButtonBase
                    aria-pressed={isChosen}
                    title={keyLabel(by, key, answer.names)}
                    sx={{ font: 'inherit', maxWidth: '100%', justifyContent: 'flex-start', minHeight: 24 }}
                  >
                    <Typography
                      variant="body2"
                      component="span"
                      noWrap
                      sx={{ fontWeight: isChosen ? 650 : 400 }}
                    >
                      {keyLabel(by, key, answer.names)}
                    </Typography>
                  </ButtonBase>
                </TableCell>
                <TableCell align="right">{number(row.scans)}</TableCell>
                <TableCell align="right">
                  {isOfScans
                    ? share(row.scans, answer.total.scans)
                    : measureText(what, measured(what, row), currency)}
                </TableCell>
              </TableRow>
            )
          })}
          {rows.length === 0 && (
            <TableRow>
              <TableCell colSpan={3}>
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
          aria-expanded={isOpen}
          aria-label={`${isOpen ? 'Fewer' : `All ${number(rows.length)}`}: ${label}`}
          onClick={() => {
            setOpen(!isOpen)
          }}
        >
          {isOpen ? 'Fewer' : `All ${number(rows.length)}`}
        </Button>
      )}
      {isOpen && answer.rowsTotal > answer.rows.length && (
        <Typography variant="caption" color="textSecondary">
          {number(answer.rowsTotal - answer.rows.length)} smaller ones are in the rows.
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

function Bar({ part }: { part: number }) {
  return (
    <Box
      aria-hidden
      sx={{
        position: 'absolute',
        left: 0,
        bottom: 1,
        height: 3,
        width: `${String(100 * part)}%`,
        bgcolor: 'primary.main',
      }}
    />
  )
}
