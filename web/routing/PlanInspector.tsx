import { Box, Link } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import type { Lane, RouteName, WholeRoute } from '@flimbo/core/routing'
import type { Ref } from 'react'
import { Link as RouterLink } from 'react-router'
import { useCampaign } from '../campaigns/index.ts'
import { AppSwitchInspector } from './AppSwitchInspector.tsx'
import { LaneInspector } from './LaneInspector.tsx'
import { OnTheWayInspector } from './OnTheWayInspector.tsx'
import { LifeInspector, OtherwiseInspector } from './RouteInspector.tsx'
import { SharedInspector } from './SharedInspector.tsx'
import type { Chosen } from './SignalPlan.tsx'
import type { Lanes } from './lanes.ts'
import type { RoutePlan } from './useRoutePlan.ts'

interface Props {
  readonly route: WholeRoute
  readonly plan: RoutePlan
  readonly lanes: Lanes
  readonly others: readonly RouteName[]
  readonly chosen: NonNullable<Chosen>
  readonly choose: (chosen: Chosen) => void
  readonly close: () => void
  readonly ref: Ref<HTMLDivElement>
  readonly destinationField: Ref<HTMLInputElement>
}

/** What was chosen of a signal plan, at the right edge. */
export function PlanInspector({ route, plan, lanes, others, chosen, choose, close, ref, ...rest }: Props) {
  const { zone } = useCampaign()
  const { state, asked } = plan
  const lane = chosen.kind === 'lane' ? lanes.find(chosen.id) : undefined
  const rows = (exit: string, place: string) => (
    <ScansOf routeId={route.id} plan={plan} exit={exit} place={place} />
  )
  return (
    <Box
      ref={ref}
      tabIndex={-1}
      sx={{
        outline: 'none',
        flexShrink: 0,
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        overflow: 'hidden',
        position: 'sticky',
        top: 8,
        maxHeight: 'calc(100vh - 120px)',
        display: 'flex',
      }}
    >
      {lane && (
        <LaneInspector
          key={lane.id}
          rows={rows(lane.id, String(asked.indexOf(lane) + 1))}
          lane={lane}
          place={asked.indexOf(lane) + 1}
          zone={zone}
          others={others}
          close={close}
          copy={() => {
            choose({ kind: 'lane', id: lanes.add(lane) })
          }}
          change={(next: Lane) => {
            lanes.change(next)
          }}
          remove={() => {
            lanes.remove(lane.id)
            choose(null)
          }}
        />
      )}
      {chosen.kind === 'otherwise' && (
        <OtherwiseInspector
          findings={plan.tagFindings}
          rows={rows('otherwise', '')}
          state={state}
          close={close}
          inputRef={rest.destinationField}
        />
      )}
      {chosen.kind === 'life' && <LifeInspector state={state} zone={zone} close={close} />}
      {chosen.kind === 'shared' && <SharedInspector state={state} sets={plan.sets} close={close} />}
      {chosen.kind === 'apps' && <AppSwitchInspector state={state} close={close} />}
      {chosen.kind === 'onTheWay' && (
        <OnTheWayInspector route={route} state={state} tags={plan.tags} close={close} />
      )}
    </Box>
  )
}

/** How many scans left that way in the period, and the way to them. */
function ScansOf({
  routeId,
  plan: { exits, period },
  exit,
  place,
}: {
  routeId: number
  plan: RoutePlan
  exit: string
  place: string
}) {
  const scans = exits.filter((each) => each.exit === exit).reduce((sum, each) => sum + each.scans, 0)
  const asked = new URLSearchParams({
    route: String(routeId),
    exit,
    lane: place,
    from: period.from,
    to: period.to,
  })
  return (
    <Link component={RouterLink} variant="body2" to={`../results?${asked.toString()}`}>
      {quantity(scans, 'scan')} in the period: show the rows
    </Link>
  )
}
