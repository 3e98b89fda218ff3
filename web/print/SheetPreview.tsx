import { Box, Typography } from '@mui/material'
import { sheetCells, sheetSides, type SheetLayout } from '@flimbo/core/print'
import { useTheme } from '@mui/material/styles'

/** A sheet may have thousands of cells: no more are drawn. */
const DRAWN_MAX = 600
const HEIGHT_PX = 150

/** The first sheet, small: which of its cells are used; a click says where to begin. */
export function SheetPreview({
  layout,
  pieces,
  begin,
}: {
  layout: SheetLayout
  pieces: number
  begin: (cell: number) => void
}) {
  const theme = useTheme()
  const { width, height } = sheetSides(layout)
  const cells = sheetCells(layout).slice(0, DRAWN_MAX)
  const last = layout.start - 1 + pieces * layout.copies
  return (
    <Box sx={{ display: 'flex', gap: 2, py: 1, alignItems: 'flex-end' }}>
      <svg
        role="img"
        aria-label="The first sheet"
        viewBox={`0 0 ${String(width)} ${String(height)}`}
        style={{ height: HEIGHT_PX, maxWidth: 220, background: '#fff', border: '1px solid #DDD8CC' }}
      >
        {cells.map((cell, i) => {
          const isUsed = i + 1 >= layout.start && i < last
          return (
            <rect
              key={i}
              {...cell}
              fill={isUsed ? theme.palette.primary.light : '#fff'}
              fillOpacity={isUsed ? 0.45 : 1}
              stroke="#5B676D"
              strokeWidth={Math.max(width, height) / 400}
              style={{ cursor: 'pointer' }}
              onClick={() => {
                begin(i + 1)
              }}
            />
          )
        })}
      </svg>
      <Typography variant="caption" color="textSecondary">
        {Math.round(width)} × {Math.round(height)} mm. Click a cell to begin there.
      </Typography>
    </Box>
  )
}
