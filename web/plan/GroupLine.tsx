import { Box } from '@mui/material'
import { quantity, number } from '@flimbo/core/formats'
import { ROW_PX } from './GridRow.tsx'
import type { Line } from './lines.ts'

interface Props {
  readonly line: Extract<Line, { kind: 'group' }>
  /** Where it stands in the grid, px from the first row. */
  readonly top: number
  readonly width: number
  readonly columns: number
  /** Opens or closes the group. */
  readonly toggle: (key: string) => void
}

/** The heading of a group of pieces with its sums. */
export function GroupLine({ line: { group, closed }, top, width, columns, toggle }: Props) {
  return (
    <Box
      role="row"
      onClick={() => {
        toggle(group.key)
      }}
      sx={{
        position: 'absolute',
        left: 0,
        width,
        height: ROW_PX,
        display: 'flex',
        alignItems: 'center',
        bgcolor: 'background.default',
        borderBottom: 1,
        borderColor: 'divider',
        cursor: 'pointer',
      }}
      style={{ transform: `translateY(${String(top)}px)` }}
    >
      <Box
        role="gridcell"
        aria-colspan={columns + 1}
        sx={{ px: 1.5, display: 'flex', gap: 2, position: 'sticky', left: 0 }}
      >
        <Box component="span" sx={{ fontWeight: 650 }}>
          <Box component="span" aria-hidden>
            {closed ? '▸ ' : '▾ '}
          </Box>
          {group.key || '(none)'}
        </Box>
        <Box component="span" sx={{ color: 'text.secondary' }}>
          {quantity(group.pieces, 'piece')} · {quantity(group.scans, 'scan')} · print run{' '}
          {number(group.printRun)} · cost {number(group.cost)}
        </Box>
      </Box>
    </Box>
  )
}
