import { Button, Link, Paper, Stack, Typography } from '@mui/material'
import { watchesApi, type Notice } from '@flimbo/core/watches'
import { Link as RouterLink } from 'react-router'
import { useAnswer, useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { When } from '../ui/index.ts'

const SHOWN = 8

const resultsOf = ({ campaignId, of, refId }: Notice) =>
  `/campaigns/${String(campaignId)}/results${of === 'campaign' ? '' : `?${of}=${String(refId)}`}`

/** What happened that somebody watches for, until they take it off the desk. */
export function Notices() {
  const { zone } = useSession().workspace
  const rows = useAnswer(watchesApi.notices, {}).data?.rows ?? []
  const seen = useChange(watchesApi.seen)
  if (rows.length === 0) return null
  return (
    <Paper
      variant="outlined"
      component="section"
      aria-labelledby="notices-title"
      sx={{ p: 2, mb: 2, borderLeftWidth: 4, borderLeftColor: 'primary.main' }}
    >
      <Stack direction="row" sx={{ alignItems: 'center', mb: 1 }}>
        <Typography id="notices-title" variant="h2" sx={{ flex: 1 }}>
          You watch for
        </Typography>
        <Button
          size="small"
          disabled={seen.isPending}
          onClick={() => {
            seen.mutate({ body: { ids: rows.map(({ id }) => id) } })
          }}
        >
          Take all off the desk
        </Button>
      </Stack>
      <Stack component="ul" sx={{ listStyle: 'none', m: 0, p: 0, gap: 0.75 }}>
        {rows.slice(0, SHOWN).map((notice) => (
          <Typography component="li" variant="body2" key={notice.id}>
            <Link component={RouterLink} to={resultsOf(notice)} sx={{ fontWeight: 650 }}>
              {notice.sentence}
            </Link>{' '}
            <When at={notice.at} zone={zone} />
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
