import BellIcon from '@mui/icons-material/NotificationsNoneOutlined'
import BellOnIcon from '@mui/icons-material/NotificationsActiveOutlined'
import { Button, Stack, Typography } from '@mui/material'
import type { Scope } from '@flimbo/core/scans'
import { watchesApi, watchInWords } from '@flimbo/core/watches'
import { useAnswer, useChange } from '../api/index.ts'
import { PanelButton } from '../ui/index.ts'
import { WatchForm } from './WatchForm.tsx'

/** What somebody is told of a campaign, a route or a piece: seen, added and removed. */
export function WatchButton({ scope, name }: { scope: Scope; name: string }) {
  const watches = useAnswer(watchesApi.list, { query: scope })
  const remove = useChange(watchesApi.remove)
  const rows = watches.data?.rows ?? []
  return (
    <PanelButton
      label={rows.length > 0 ? `Watching (${String(rows.length)})` : 'Watch'}
      name={`Watch ${name}`}
      startIcon={rows.length > 0 ? <BellOnIcon /> : <BellIcon />}
      align="right"
      width={400}
    >
      {() => (
        <>
          <Typography variant="h2" sx={{ mb: 1 }}>
            Watch {name}
          </Typography>
          <Stack component="ul" aria-label="What you are told" sx={{ listStyle: 'none', m: 0, p: 0, mb: 1 }}>
            {rows.map(({ id, what, every, n }) => (
              <Stack component="li" direction="row" key={id} sx={{ alignItems: 'center' }}>
                <Typography variant="body2" sx={{ flex: 1 }}>
                  You are told of {watchInWords(what, every, n)}.
                </Typography>
                <Button
                  size="small"
                  aria-label={`Remove: ${watchInWords(what, every, n)}`}
                  disabled={remove.isPending}
                  onClick={() => {
                    remove.mutate({ params: { id } })
                  }}
                >
                  Remove
                </Button>
              </Stack>
            ))}
          </Stack>
          <WatchForm scope={scope} />
        </>
      )}
    </PanelButton>
  )
}
