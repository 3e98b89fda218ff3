import { Box, Chip, LinearProgress, Skeleton, Stack, Typography } from '@mui/material'
import { resultsApi } from '@flimbo/core/results'
import type { Scope } from '@flimbo/core/scans'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Trouble, useNow } from '../ui/index.ts'
import { OnWhat, Through, Where } from './Breakdowns.tsx'
import { Controls } from './Controls.tsx'
import { FoldedNote } from './FoldedNote.tsx'
import { HowMany } from './HowMany.tsx'
import { OnPages } from './OnPages.tsx'
import { OverTime } from './OverTime.tsx'
import { periodOf } from './period.ts'
import { RowsBehind } from './RowsBehind.tsx'
import { WatchButton } from '../watches/index.ts'
import { ScopeChoice } from './ScopeChoice.tsx'

function scopeOf(codeId: number | undefined, routeId: number | undefined, campaignId: number): Scope {
  if (codeId) return { codeId }
  return routeId ? { routeId } : { campaignId }
}

/** What is watched, in a word. */
function nameOf({ codeId, routeId }: Scope): string {
  if (codeId !== undefined) return 'this piece'
  return routeId === undefined ? 'this campaign' : 'this route'
}

/** What came of a campaign, a route or a piece, as questions from left to right. */
export function ResultsScreen() {
  const campaign = useCampaign()
  const now = useNow()
  const [address, setAddress] = useSearchParams()
  const period = periodOf(address, campaign.zone, now)
  const [codeId, routeId] = [
    Number(address.get('code')) || undefined,
    Number(address.get('route')) || undefined,
  ]
  const scope = scopeOf(codeId, routeId, campaign.id)
  const { from, to, unit, compare } = period
  const channel = codeId ? undefined : (address.get('channel') ?? undefined)
  const exit = routeId && !codeId ? (address.get('exit') ?? undefined) : undefined
  const results = useAnswer(resultsApi.get, {
    query: { ...scope, channel, from, to, unit, compare: compare ? 'yes' : 'no' },
  })
  const { data } = results

  const change = (changes: Record<string, string | null>) => {
    setAddress(
      (old) => {
        for (const [name, value] of Object.entries(changes)) {
          if (value === null) old.delete(name)
          else old.set(name, value)
        }
        return old
      },
      { replace: true },
    )
  }

  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Results
        </Typography>
        <WatchButton scope={scope} name={nameOf(scope)} />
        <ScopeChoice
          scope={scope}
          choose={(kind, id) => {
            change({ code: kind === 'code' ? String(id) : null, route: kind === 'route' ? String(id) : null })
          }}
        />
      </Stack>
      <Controls period={period} change={change} />
      {channel !== undefined && (
        <Chip
          sx={{ mt: 1 }}
          label={`Only the channel: ${channel === '-' ? 'unassigned' : channel}`}
          onDelete={() => {
            change({ channel: null })
          }}
        />
      )}
      <Box sx={{ height: 4, mt: 1 }}>
        {results.isFetching && results.isPlaceholderData && (
          <LinearProgress aria-label="Reading" sx={{ height: 2 }} />
        )}
      </Box>
      {results.isError && (
        <Trouble
          error={results.error}
          retry={() => {
            void results.refetch()
          }}
        />
      )}
      {!data && !results.isError && <Skeleton variant="rounded" height={480} />}
      {data && (
        <Stack spacing={2}>
          <FoldedNote data={data} />
          <HowMany data={data} />
          <OverTime data={data} />
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 2 }}>
            <Where data={data} />
            <OnWhat data={data} />
          </Box>
          {codeId === undefined && (
            <Through
              data={data}
              campaignId={campaign.id}
              narrow={(to) => {
                change({ channel: to })
              }}
            />
          )}
          {channel === undefined && (
            <OnPages
              key={JSON.stringify(scope)}
              scope={scope}
              from={data.period.from}
              to={data.period.to}
              zone={data.zone}
            />
          )}
          <RowsBehind
            key={JSON.stringify([scope, channel, exit])}
            scope={{ ...scope, channel }}
            exit={exit}
            lane={address.get('lane')}
            data={data}
            all={() => {
              change({ exit: null, lane: null })
            }}
          />
        </Stack>
      )}
    </Box>
  )
}
