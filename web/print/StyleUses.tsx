import { Box, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { houseStylesApi } from '@flimbo/core/houseStyles'
import { useAnswer } from '../api/index.ts'

/** Which other pieces a change of a house style changes; what of them is released stays as it was printed. */
export function StyleUses({ styleId, except }: { styleId: number; except: number }) {
  const { data } = useAnswer(houseStylesApi.uses, { params: { id: styleId } })
  if (!data) return null
  const others = data.rows.filter(({ kind, id }) => kind === 'static' || id !== except)
  const hidden = data.total - data.rows.length
  return (
    <Box component="details" sx={{ fontSize: '0.8125rem' }}>
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        Which pieces
        {data.released > 0 && `; ${quantity(data.released, 'released one')} stay as they were printed`}
      </Box>
      <Box component="ul" sx={{ m: 0, pl: 2.5, maxHeight: 120, overflow: 'auto' }}>
        {others.map(({ kind, id, name, campaignName, isReleased }) => (
          <li key={`${kind} ${String(id)}`}>
            {name}, {campaignName}
            {isReleased && ' (released)'}
          </li>
        ))}
      </Box>
      {hidden > 0 && (
        <Typography variant="caption" color="textSecondary">
          and {quantity(hidden, 'other')}
        </Typography>
      )}
    </Box>
  )
}
