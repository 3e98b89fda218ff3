import { Link, Paper, Stack, Typography } from '@mui/material'
import { checksApi, isFailure } from '@flimbo/core/checks'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { quantity, moment } from '@flimbo/core/formats'

const SHOWN = 6

/** Destinations that need somebody now: those that fail, since when, and those that lose their tags. */
export function Failing() {
  const failing = useAnswer(checksApi.failing, {})
  const rows = failing.data?.rows ?? []
  if (rows.length === 0) return null
  return (
    <Paper
      variant="outlined"
      component="section"
      aria-labelledby="failing-title"
      sx={{ p: 2, mb: 2, borderColor: 'warning.main', borderLeftWidth: 4 }}
    >
      <Typography id="failing-title" variant="h2" sx={{ mb: 1 }}>
        Failing destinations
      </Typography>
      <Stack component="ul" sx={{ listStyle: 'none', m: 0, p: 0, gap: 0.75 }}>
        {rows.slice(0, SHOWN).map((row) => (
          <Typography component="li" variant="body2" key={row.routeId}>
            <Link
              component={RouterLink}
              to={`/campaigns/${String(row.campaignId)}/routes?route=${String(row.routeId)}&tab=check`}
              sx={{ fontWeight: 650 }}
            >
              {row.campaignName}: {row.routeName}
            </Link>
            {isFailure(row.verdict)
              ? ` fails since ${moment(row.failingSince ?? row.at, row.zone)}`
              : ' loses its tags'}{' '}
            ({quantity(row.codes, 'code')}). {row.sentence}
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
