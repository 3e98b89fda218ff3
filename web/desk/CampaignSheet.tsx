import { Box, Link, Paper, Stack, Typography } from '@mui/material'
import type { Campaign } from '@flimbo/core/campaigns'
import { day, number, quantity } from '@flimbo/core/formats'
import { Link as RouterLink } from 'react-router'
import { LastScan } from '../ui/index.ts'
import { Sparkline } from './Sparkline.tsx'

/** A campaign on the desk: its dates, its last days, its figures. */
export function CampaignSheet({ campaign }: { campaign: Campaign }) {
  const { id, name, codes, scans, recent, zone, pinned } = campaign
  return (
    <Paper variant="outlined" sx={{ p: 2, height: '100%', '&:hover': { borderColor: 'primary.main' } }}>
      <Link component={RouterLink} to={`/campaigns/${String(id)}/plan`} color="textPrimary">
        <Typography variant="h2" component="h2">
          {name}
          {pinned && (
            <Box
              component="span"
              sx={{ color: 'text.secondary', fontWeight: 400, fontSize: '0.75rem', ml: 1 }}
            >
              pinned
            </Box>
          )}
        </Typography>
      </Link>
      <Typography variant="body2" color="textSecondary">
        {dates(campaign)} · {quantity(codes, 'code')}
      </Typography>
      <Box sx={{ my: 1.5 }}>
        <Sparkline days={recent} />
        <Typography variant="caption" color="textSecondary">
          Scans a day, last {recent.length} days; the tallest {number(Math.max(0, ...recent))}
        </Typography>
      </Box>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'baseline' }}>
        <Figure value={number(scans.scans)} name="scans" />
        <Figure value={number(scans.uniques)} name="unique" />
        <Typography variant="body2" color="textSecondary">
          <LastScan at={scans.lastAt} zone={zone} />
        </Typography>
      </Stack>
    </Paper>
  )
}

function dates({ startsOn, endsOn }: Campaign): string {
  if (startsOn && endsOn) return `${day(startsOn)} to ${day(endsOn)}`
  if (startsOn) return `from ${day(startsOn)}`
  return endsOn ? `until ${day(endsOn)}` : 'no dates set'
}

function Figure({ value, name }: { value: string; name: string }) {
  return (
    <Typography component="span">
      <Box component="span" sx={{ fontSize: '1.25rem', fontWeight: 650 }}>
        {value}
      </Box>{' '}
      <Box component="span" sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        {name}
      </Box>
    </Typography>
  )
}
