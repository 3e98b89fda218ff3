import { Button, Link, Paper, Stack, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { leadsApi } from '@flimbo/core/leads'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { When } from '../ui/index.ts'

const SHOWN = 6

/** Campaigns in which somebody answered whom nobody has looked after yet. */
export function NewLeads() {
  const { zone } = useSession().workspace
  const rows = useAnswer(leadsApi.fresh, {}).data?.rows ?? []
  if (rows.length === 0) return null
  return (
    <Paper variant="outlined" component="section" aria-labelledby="new-leads-title" sx={{ p: 2, mb: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'center', mb: 1 }}>
        <Typography id="new-leads-title" variant="h2" sx={{ flex: 1 }}>
          New leads
        </Typography>
        <Button size="small" component={RouterLink} to="/leads">
          All leads
        </Button>
      </Stack>
      <Stack component="ul" sx={{ listStyle: 'none', m: 0, p: 0, gap: 0.75 }}>
        {rows.slice(0, SHOWN).map(({ campaignId, campaignName, count, latestAt }) => (
          <Typography component="li" variant="body2" key={campaignId}>
            <Link
              component={RouterLink}
              to={`/campaigns/${String(campaignId)}/leads?state=new`}
              sx={{ fontWeight: 650 }}
            >
              {campaignName}: {quantity(count, 'new lead')}
            </Link>
            , the latest <When at={latestAt} zone={zone} />
          </Typography>
        ))}
        {rows.length > SHOWN && (
          <Typography component="li" variant="body2" color="textSecondary">
            and {rows.length - SHOWN} more campaigns
          </Typography>
        )}
      </Stack>
    </Paper>
  )
}
