import { Box } from '@mui/material'
import { rulerMarks } from '@flimbo/core/symbol'
import { Fragment, type ReactNode } from 'react'

/** Room for the numbers, on the screen. */
const MARGIN_MM = 11
/** A wider symbol is drawn smaller, with the ruler that belongs to it. */
const SHOWN_MM = 116
const TICK_PX = 8
const INK = '#5B676D'

/** A sheet with millimetre rulers along two edges; what stands on it is as large as it prints. */
export function Ruler({ mm, children }: { mm: number; children: ReactNode }) {
  const scale = Math.min(1, SHOWN_MM / mm)
  const { ticks, labels } = rulerMarks(mm, scale)
  const at = (value: number) => `${String(MARGIN_MM + value * scale)}mm`
  const size = `${String(mm * scale + 2 * MARGIN_MM)}mm`
  // On white paper in either scheme, like the symbol itself.
  const label = { position: 'absolute', fontSize: 10, color: INK, lineHeight: 1 } as const
  const stroke = { position: 'absolute', bgcolor: INK } as const
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
        {ticks.map((value) => {
          const length = labels.includes(value) ? TICK_PX : TICK_PX / 2
          return (
            <Fragment key={value}>
              <Box aria-hidden sx={{ ...stroke, top: 0, left: at(value), height: length, width: '1px' }} />
              <Box aria-hidden sx={{ ...stroke, left: 0, top: at(value), width: length, height: '1px' }} />
            </Fragment>
          )
        })}
        {labels.map((value) => (
          <Fragment key={value}>
            <Box aria-hidden sx={{ ...label, top: 11, left: at(value), transform: 'translateX(-50%)' }}>
              {value}
            </Box>
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
            width: `${String(mm * scale)}mm`,
            height: `${String(mm * scale)}mm`,
            outline: '1px dashed #DDD8CC',
          }}
        >
          {children}
        </Box>
      </Box>
      {scale < 1 && (
        <Box sx={{ mt: 1, fontSize: 12, color: 'text.secondary' }}>
          Shown at {Math.round(scale * 100)} % of its printed size
        </Box>
      )}
    </Box>
  )
}
