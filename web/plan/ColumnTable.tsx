import {
  Box,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import type { PlanColumn, PlanImport } from '@flimbo/core/plan'

const LEAVE_OUT = '-'

/** What the columns of a file stand for once one was chosen anew; no two stand for the same. */
export function changeMapping(columns: PlanImport['columns'], at: number, to: string): (string | null)[] {
  return columns.map((column, i) => {
    if (i === at) return to === LEAVE_OUT ? null : to
    return column.to === to ? null : column.to
  })
}

interface Props {
  readonly file: PlanImport
  readonly columns: readonly PlanColumn[]
  readonly map: (at: number, to: string) => void
}

/** The first lines of a file, and over each column what it stands for. */
export function ColumnTable({ file, columns, map }: Props) {
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Columns of the file">
      <Table size="small">
        <TableHead>
          <TableRow>
            {file.columns.map(({ heading, to }, i) => (
              <TableCell key={i} sx={{ minWidth: 150, verticalAlign: 'top' }}>
                <Typography variant="body2" noWrap sx={{ fontWeight: 650 }}>
                  {heading || `Column ${String(i + 1)}`}
                </Typography>
                <TextField
                  select
                  size="small"
                  fullWidth
                  value={to ?? LEAVE_OUT}
                  onChange={(event) => {
                    map(i, event.target.value)
                  }}
                  slotProps={{
                    htmlInput: { 'aria-label': `${heading || `Column ${String(i + 1)}`} stands for` },
                  }}
                >
                  <MenuItem value={LEAVE_OUT}>(ignore)</MenuItem>
                  {columns.map(({ id, title }) => (
                    <MenuItem key={id} value={id}>
                      {title}
                    </MenuItem>
                  ))}
                </TextField>
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {[0, 1, 2]
            .filter((i) => file.columns.some(({ sample }) => sample[i] !== undefined))
            .map((i) => (
              <TableRow key={i}>
                {file.columns.map(({ sample, to }, j) => (
                  <TableCell
                    key={j}
                    sx={{ maxWidth: 200, color: to === null ? 'text.secondary' : undefined }}
                  >
                    <Typography variant="body2" noWrap>
                      {sample[i] ?? ''}
                    </Typography>
                  </TableCell>
                ))}
              </TableRow>
            ))}
        </TableBody>
      </Table>
    </Box>
  )
}
