import { Link, Paper, Stack, Typography } from '@mui/material'
import { routesApi, type BoundRow } from '@flimbo/core/routing'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { quantity, day, moment, number } from '@flimbo/core/formats'

const SHOWN = 6
const dayOf = (at: number | null) =>
  at === null ? 'much later' : day(new Date(at).toISOString().slice(0, 10))

function sentence({ kind, at, between, zone, limit }: BoundRow): string {
  switch (kind) {
    case 'full':
      return `has let all of its ${number(limit ?? 0)} scans through; every further scan gets the answer for then.`
    case 'full-today':
      return 'has let all of today’s scans through.'
    case 'over':
      return `ended ${moment(at ?? 0, zone)}.`
    case 'ends-soon':
      return `ends ${moment(at ?? 0, zone)}.`
    case 'full-soon':
      return `will have used its ${number(limit ?? 0)} scans about ${dayOf(at)} at the present pace (${dayOf(between?.[0] ?? null)} to ${dayOf(between?.[1] ?? null)}).`
  }
}

/** Routes whose dates or limits need somebody: reached, over, or soon. */
export function Bounds() {
  const rows = useAnswer(routesApi.attention, {}).data?.rows ?? []
  if (rows.length === 0) return null
  return (
    <Paper
      variant="outlined"
      component="section"
      aria-labelledby="bounds-title"
      sx={{
        p: 2,
        mb: 2,
        borderColor: rows.some(({ urgent }) => urgent) ? 'warning.main' : 'divider',
        borderLeftWidth: 4,
      }}
    >
      <Typography id="bounds-title" variant="h2" sx={{ mb: 1 }}>
        Dates and limits
      </Typography>
      <Stack component="ul" sx={{ listStyle: 'none', m: 0, p: 0, gap: 0.75 }}>
        {rows.slice(0, SHOWN).map((row) => (
          <Typography component="li" variant="body2" key={`${String(row.routeId)}${row.kind}`}>
            <Link
              component={RouterLink}
              to={`/campaigns/${String(row.campaignId)}/routes?route=${String(row.routeId)}`}
              sx={{ fontWeight: 650 }}
            >
              {row.campaignName}: {row.routeName}
            </Link>{' '}
            ({quantity(row.codes, 'code')}) {sentence(row)}
          </Typography>
        ))}
        {rows.length > SHOWN && (
          <Typography component="li" variant="body2" color="textSecondary">
            and {rows.length - SHOWN} more
          </Typography>
        )}
      </Stack>
    </Paper>
  )
}
