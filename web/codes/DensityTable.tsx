import { Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material'
import type { Code } from '@flimbo/core/codes'
import { densities, MODULE_MM_MIN, type Density } from '@flimbo/core/symbol'

/** Symbol density a piece's symbol is, whichever way it is written: the long address, the short link, and the short link in capitals, which is what is printed. */
export function DensityTable({
  code,
}: {
  code: Pick<Code, 'finalAddress' | 'shortLink' | 'level' | 'sizeMm'>
}) {
  const { long, mixedCase, upperCase } = densities(code.finalAddress, code.shortLink, code.level, code.sizeMm)
  const rows: readonly [string, Density | null][] = [
    ['The long tagged address', long],
    ['The short link, mixed case', mixedCase],
    ['The short link in capitals (printed)', upperCase],
  ]
  return (
    <Table size="small" aria-label="Symbol density" sx={{ '& td, & th': { px: 0.5 } }}>
      <TableHead>
        <TableRow>
          <TableCell>
            Level {code.level}, {code.sizeMm} mm
          </TableCell>
          <TableCell align="right">Modules</TableCell>
          <TableCell align="right">Module</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.map(([name, density]) => (
          <TableRow key={name}>
            <TableCell component="th" scope="row" sx={{ fontWeight: density === upperCase ? 650 : 400 }}>
              {name}
            </TableCell>
            <TableCell align="right">{density?.side ?? 'too long'}</TableCell>
            <TableCell
              align="right"
              sx={
                density && density.moduleMm < MODULE_MM_MIN ? { color: 'warning.main', fontWeight: 650 } : {}
              }
            >
              {density ? `${density.moduleMm.toFixed(2)} mm` : '–'}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
