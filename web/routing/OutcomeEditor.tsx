import { Stack } from '@mui/material'
import type { PageSummary } from '@flimbo/core/pages'
import type { Lane, LaneOutcome, RouteName } from '@flimbo/core/routing'
import { Pick } from '../conditions/index.ts'
import { usePages } from '../pages/index.ts'
import { AnswerFields, FRESH_ADDRESS } from './AnswerEditor.tsx'
import { newVariant, SplitEditor } from './SplitEditor.tsx'

const KINDS = [
  ['address', 'an address'],
  ['page', 'a page or file'],
  ['split', 'a split of variants'],
  ['message', 'a message'],
  ['route', 'another route'],
] as const

function fresh(
  kind: string,
  was: LaneOutcome,
  others: readonly RouteName[],
  pages: readonly PageSummary[],
): LaneOutcome {
  if (kind === 'split')
    return {
      kind: 'split',
      variants: [
        { ...newVariant('a', 'A'), leads: was.kind === 'address' ? was : FRESH_ADDRESS },
        newVariant('b', 'B'),
      ],
    }
  if (kind === 'message') return { kind: 'message', title: '', text: '' }
  if (kind === 'page') return { kind: 'page', pageId: pages[0]?.id ?? 0 }
  if (kind === 'route') return { kind: 'route', routeId: others[0]?.id ?? 0 }
  return was.kind === 'split' && was.variants[0]?.leads.kind === 'address'
    ? was.variants[0].leads
    : { kind: 'address', address: '' }
}

/** What a lane does with its scans. */
export function OutcomeEditor({
  lane,
  others,
  change,
}: {
  lane: Lane
  others: readonly RouteName[]
  change: (outcome: LaneOutcome) => void
}) {
  const { outcome } = lane
  const pages = usePages()
  const kind = (
    <Pick
      label="Leads to"
      value={outcome.kind}
      choices={KINDS.filter(([each]) => each !== 'route' || others.length > 0 || outcome.kind === 'route')}
      change={(next) => {
        change(fresh(next, outcome, others, pages))
      }}
    />
  )
  if (outcome.kind === 'address' || outcome.kind === 'message' || outcome.kind === 'page')
    return (
      <Stack sx={{ gap: 1 }}>
        {kind}
        <AnswerFields answer={outcome} change={change} />
      </Stack>
    )
  if (outcome.kind === 'route') {
    return (
      <Stack sx={{ gap: 1 }}>
        {kind}
        <Pick
          label="Route"
          value={String(outcome.routeId)}
          choices={[
            ...others.map(({ id, name }) => [String(id), name] as const),
            ...(others.some(({ id }) => id === outcome.routeId)
              ? []
              : [[String(outcome.routeId), 'A route of another campaign'] as const]),
          ]}
          change={(id) => {
            change({ kind: 'route', routeId: Number(id) })
          }}
        />
      </Stack>
    )
  }
  return (
    <Stack sx={{ gap: 1 }}>
      {kind}
      <SplitEditor variants={outcome.variants} change={change} />
    </Stack>
  )
}
