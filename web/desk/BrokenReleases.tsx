import { Link, Paper, Stack, Typography } from '@mui/material'
import { number } from '@flimbo/core/formats'
import { printApi } from '@flimbo/core/print'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'

const SHOWN = 6

/** Released pieces whose printed link leads nobody on: paper cannot be called back, so somebody must see to them. */
export function BrokenReleases() {
  const { data } = useAnswer(printApi.broken, {})
  if (!data || data.total === 0) return null
  const more = data.total - Math.min(SHOWN, data.rows.length)
  return (
    <Paper
      variant="outlined"
      component="section"
      aria-labelledby="broken-title"
      sx={{ p: 2, mb: 2, borderColor: 'warning.main', borderLeftWidth: 4 }}
    >
      <Typography id="broken-title" variant="h2" sx={{ mb: 1 }}>
        Printed, and not working
      </Typography>
      <Stack component="ul" sx={{ listStyle: 'none', m: 0, p: 0, gap: 0.75 }}>
        {data.rows.slice(0, SHOWN).map(({ codeId, campaignId, campaignName, name, link, why }) => (
          <Typography component="li" variant="body2" key={`${String(codeId)} ${link}`}>
            <Link
              component={RouterLink}
              to={`/campaigns/${String(campaignId)}/plan?code=${String(codeId)}`}
              sx={{ fontWeight: 650 }}
            >
              {campaignName}: {name}
            </Link>{' '}
            ({link}). {why}
          </Typography>
        ))}
        {more > 0 && (
          <Typography component="li" variant="body2" color="textSecondary">
            and {number(more)} more
          </Typography>
        )}
      </Stack>
    </Paper>
  )
}
