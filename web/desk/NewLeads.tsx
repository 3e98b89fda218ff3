import { Button } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { leadsApi } from '@flimbo/core/leads'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { NoteList, When } from '../ui/index.ts'

/** Campaigns in which somebody answered whom nobody has looked after yet. */
export function NewLeads() {
  const { zone } = useSession().workspace
  const rows = useAnswer(leadsApi.fresh, {}).data?.rows ?? []
  return (
    <NoteList
      title="New leads"
      of="campaigns"
      action={
        <Button size="small" component={RouterLink} to="/leads">
          All leads
        </Button>
      }
      notes={rows.map(({ campaignId, campaignName, count, latestAt }) => ({
        key: campaignId,
        to: `/campaigns/${String(campaignId)}/leads?state=new`,
        about: `${campaignName}: ${quantity(count, 'new lead')}`,
        rest: (
          <>
            , the latest <When at={latestAt} zone={zone} />
          </>
        ),
      }))}
    />
  )
}
