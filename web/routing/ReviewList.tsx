import { Box, Button, Typography } from '@mui/material'
import { reviewRoute, type ExitTally, type Lane } from '@flimbo/core/routing'
import type { Chosen } from './SignalPlan.tsx'
import type { Draft } from './useDraft.ts'

/** What the review finds in a draft; `exits` are the real scans of lanes that are live as they stand. */
export function findingsOf(
  { destination, rules }: Draft,
  lanes: readonly Lane[],
  now: number,
  exits: readonly ExitTally[] | null,
) {
  const taken = exits === null ? undefined : new Map<string, number>()
  for (const { exit, scans } of exits ?? []) taken?.set(exit, (taken.get(exit) ?? 0) + scans)
  return reviewRoute({
    destination,
    rules: { ...rules, lanes: [...lanes] },
    now,
    ...(taken ? { taken } : {}),
  })
}

/** What the rule review finds, each a step from what it is about. */
export function ReviewList({
  findings,
  tags,
  choose,
}: {
  findings: ReturnType<typeof reviewRoute>
  tags: readonly string[]
  choose: (chosen: Chosen) => void
}) {
  if (findings.length + tags.length === 0)
    return (
      <Typography>
        Nothing stands out: every lane can be reached, and what can be shown to be wrong is not there.
      </Typography>
    )
  return (
    <Box component="ul" aria-label="Review" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {tags.map((sentence) => (
        <Typography component="li" key={sentence} sx={{ py: 0.5, borderBottom: 1, borderColor: 'divider' }}>
          <span aria-hidden>△</span> {sentence}
        </Typography>
      ))}
      {findings.map(({ kind, lane, weight, sentence }, i) => (
        <Box
          component="li"
          key={`${kind}${lane ?? ''}${String(i)}`}
          sx={{
            display: 'flex',
            gap: 1,
            alignItems: 'flex-start',
            py: 0.5,
            borderBottom: 1,
            borderColor: 'divider',
          }}
        >
          <Typography aria-hidden sx={{ color: weight === 'wrong' ? 'warning.main' : 'text.secondary' }}>
            {weight === 'wrong' ? '▲' : '△'}
          </Typography>
          <Typography sx={{ flex: 1 }}>
            {weight === 'wrong' ? 'Wrong: ' : ''}
            {sentence}
          </Typography>
          {lane !== null && (
            <Button
              onClick={() => {
                choose({ kind: 'lane', id: lane })
              }}
            >
              Show the lane
            </Button>
          )}
        </Box>
      ))}
    </Box>
  )
}
