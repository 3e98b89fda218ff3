import { Box, Typography } from '@mui/material'
import { moment } from '@flimbo/core/formats'
import type { ResultsSummary } from '@flimbo/core/results'

/** Changes of destination, numbered as they are marked on the chart of time. */
export function Changes({ summary: { changes, zone } }: { summary: ResultsSummary }) {
  if (changes.length === 0) return null
  return (
    <Box
      component="ol"
      aria-label="Destination changes"
      tabIndex={0}
      sx={{ listStyle: 'none', m: 0, px: 2, py: 0, maxHeight: 110, overflowY: 'auto' }}
    >
      {changes.map((each, i) => (
        <Typography component="li" variant="body2" key={`${String(each.routeId)}-${String(each.at)}`} noWrap>
          <Box
            component="span"
            sx={{ color: 'warning.main', fontWeight: 650, display: 'inline-block', minWidth: 20 }}
          >
            {i + 1}
          </Box>
          {moment(each.at, zone)}: {each.by} made “{each.routeName}” lead to{' '}
          <Typography component="span" variant="mono">
            {each.is}
          </Typography>
        </Typography>
      ))}
    </Box>
  )
}
