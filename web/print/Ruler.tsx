import { Box } from '@mui/material'
import { rulerMarks } from '@flimbo/core/symbol'
import { Fragment, type ReactNode } from 'react'

/** Room for the numbers, on the screen. */
const MARGIN_MM = 11
/** What is larger is drawn smaller, with the rulers that belong to it. */
const SHOWN_MM = { width: 116, height: 80 }
const TICK_PX = 8
const INK = '#5B676D'

/** A sheet with millimetre rulers along two edges; what stands on it is as large as it prints. */
export function Ruler({
  widthMm,
  heightMm,
  children,
}: {
  widthMm: number
  heightMm: number
  children: ReactNode
}) {
  const scale = Math.min(1, SHOWN_MM.width / widthMm, SHOWN_MM.height / heightMm)
  const across = rulerMarks(widthMm, scale)
  const down = rulerMarks(heightMm, scale)
  const at = (value: number) => `${String(MARGIN_MM + value * scale)}mm`
  const shown = (mm: number) => `${String(mm * scale)}mm`
  const sheet = (mm: number) => `${String(mm * scale + 2 * MARGIN_MM)}mm`
  // On white paper in either scheme, like the symbol itself.
  const label = { position: 'absolute', fontSize: 10, color: INK, lineHeight: 1 } as const
  const stroke = { position: 'absolute', bgcolor: INK } as const
  const length = (labels: readonly number[], value: number) =>
    labels.includes(value) ? TICK_PX : TICK_PX / 2
  return (
    <Box
      sx={{ overflow: 'auto', p: 1.5, display: 'grid', placeItems: 'center', bgcolor: 'background.default' }}
    >
      <Box
        sx={{
          position: 'relative',
          width: sheet(widthMm),
          height: sheet(heightMm),
          bgcolor: '#fff',
          border: 1,
          borderColor: 'divider',
        }}
      >
        {across.ticks.map((value) => (
          <Box
            key={value}
            aria-hidden
            sx={{ ...stroke, top: 0, left: at(value), height: length(across.labels, value), width: '1px' }}
          />
        ))}
        {down.ticks.map((value) => (
          <Box
            key={value}
            aria-hidden
            sx={{ ...stroke, left: 0, top: at(value), width: length(down.labels, value), height: '1px' }}
          />
        ))}
        {across.labels.map((value) => (
          <Box
            key={value}
            aria-hidden
            sx={{ ...label, top: 11, left: at(value), transform: 'translateX(-50%)' }}
          >
            {value}
          </Box>
        ))}
        {down.labels.map((value) => (
          <Fragment key={value}>
            <Box aria-hidden sx={{ ...label, left: 11, top: at(value), transform: 'translateY(-50%)' }}>
              {value}
            </Box>
          </Fragment>
        ))}
        <Box
          sx={{
            position: 'absolute',
            left: at(0),
            top: at(0),
            width: shown(widthMm),
            height: shown(heightMm),
            outline: '1px dashed #DDD8CC',
          }}
        >
          {children}
        </Box>
      </Box>
      {Math.round(scale * 100) < 100 && (
        <Box sx={{ mt: 1, fontSize: 12, color: 'text.secondary' }}>
          Shown at {Math.round(scale * 100)} % of its printed size
        </Box>
      )}
    </Box>
  )
}
