import { Box } from '@mui/material'
import type { ReactNode } from 'react'

const MARGIN_MM = 10
/** A wider symbol is drawn smaller, with the ruler that belongs to it. */
const SCREEN_MM = 130

function rulerStep(mm: number): number {
  if (mm > 400) return 100
  return mm > 60 ? 10 : 5
}

/** A sheet with millimetre rulers along two edges; what stands on it is as large as it prints. */
export function Ruler({ mm, children }: { mm: number; children: ReactNode }) {
  const sheet = mm + 2 * MARGIN_MM
  const shrink = Math.min(1, SCREEN_MM / sheet)
  const step = rulerStep(mm)
  const marks = Array.from({ length: Math.floor(mm / step) + 1 }, (_, i) => i * step)
  const at = (value: number) => `${String((MARGIN_MM + value) * shrink)}mm`
  const size = `${String(sheet * shrink)}mm`
  // On white paper in either scheme, like the symbol itself.
  const label = { position: 'absolute', fontSize: 10, color: '#5B676D', lineHeight: 1 } as const
  return (
    <Box
      sx={{ overflow: 'auto', p: 3, display: 'grid', placeItems: 'center', bgcolor: 'background.default' }}
    >
      <Box
        sx={{
          position: 'relative',
          width: size,
          height: size,
          bgcolor: '#fff',
          border: 1,
          borderColor: 'divider',
        }}
      >
        {marks.map((value) => (
          <Box key={value} aria-hidden>
            <Box
              sx={{
                position: 'absolute',
                top: 0,
                left: at(value),
                height: 8,
                borderLeft: '1px solid #5B676D',
              }}
            />
            <Box sx={{ ...label, top: 10, left: at(value), transform: 'translateX(-50%)' }}>{value}</Box>
            <Box
              sx={{ position: 'absolute', left: 0, top: at(value), width: 8, borderTop: '1px solid #5B676D' }}
            />
            <Box sx={{ ...label, left: 10, top: at(value), transform: 'translateY(-50%)' }}>{value}</Box>
          </Box>
        ))}
        <Box
          sx={{
            position: 'absolute',
            left: at(0),
            top: at(0),
            width: `${String(mm * shrink)}mm`,
            height: `${String(mm * shrink)}mm`,
            outline: '1px dashed #DDD8CC',
          }}
        >
          {children}
        </Box>
      </Box>
      {shrink < 1 && (
        <Box sx={{ mt: 1, fontSize: 12, color: 'text.secondary' }}>
          Shown at {Math.round(shrink * 100)} % of its printed size
        </Box>
      )}
    </Box>
  )
}
