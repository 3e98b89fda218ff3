import { Box, MenuItem, Stack, TextField } from '@mui/material'
import type { Rehearsal, RouteName, WholeRoute } from '@flimbo/core/routing'
import { useLayoutEffect, useRef, useState } from 'react'
import { useCampaign } from '../campaigns/index.ts'
import { Sheet, useKeys, useNow } from '../ui/index.ts'
import { DraftBar } from './DraftBar.tsx'
import { lanesOf } from './lanes.ts'
import { PlanBar } from './PlanBar.tsx'
import { PlanInspector } from './PlanInspector.tsx'
import { PublishDialog } from './PublishDialog.tsx'
import { DEVICES, NO_PLACE, rehearse } from './rehearse.ts'
import { SignalPlan, type Chosen } from './SignalPlan.tsx'
import { UnderPlan } from './UnderPlan.tsx'
import { PERIODS, useRoutePlan, type RoutePlan } from './useRoutePlan.ts'

interface Props {
  readonly route: WholeRoute
  readonly others: readonly RouteName[]
  /** Counts how often the destination was asked for by a key. */
  readonly focusDestination: number
}

/** The signal plan of a route with the test scan under it, and what is chosen of it at the right. */
export function PlanView({ route, others, focusDestination }: Props) {
  const { zone } = useCampaign()
  const now = useNow()
  const plan = useRoutePlan(route, others, now)
  const { state } = plan
  const lanes = lanesOf(state)
  const [publishing, setPublishing] = useState(false)
  const [given, setGiven] = useState(() => firstRehearsal(zone))
  const rehearsed = plan.compiled && rehearse(plan.compiled, given, now)
  const { chosen, choose, close, inspector, destinationField } = useChosen(focusDestination)
  const addLane = () => {
    choose({ kind: 'lane', id: lanes.add() })
  }
  useKeys({
    l: addLane,
    p: () => {
      if (state.isPrepared && state.isKept) setPublishing(true)
    },
  })

  return (
    <Stack spacing={2} sx={{ minWidth: 0 }}>
      <Sheet pad={false}>
        <DraftBar
          routeId={route.id}
          state={state}
          discarded={() => {
            choose(null)
          }}
          publish={() => {
            setPublishing(true)
          }}
        />
        <PlanBar
          route={route}
          rules={state.draft.rules}
          passing={plan.passing}
          period={<PeriodChoice period={plan.period} />}
          chosen={chosen}
          choose={choose}
          addLane={addLane}
        />
      </Sheet>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'flex-start', minWidth: 0 }}>
        <Stack spacing={2} sx={{ flex: 1, minWidth: 0 }}>
          <Sheet pad={false}>
            <SignalPlan
              route={route}
              state={state}
              set={plan.set}
              exits={plan.exits}
              passing={plan.passing}
              zone={zone}
              names={plan.names}
              chosen={chosen}
              choose={choose}
              lit={rehearsed?.decision.exit ?? null}
            />
          </Sheet>
          <UnderPlan
            route={route}
            plan={plan}
            given={given}
            rehearsed={rehearsed}
            now={now}
            set={(change) => {
              setGiven((was) => ({ ...was, ...change }))
            }}
            choose={choose}
          />
        </Stack>
        {chosen && (
          <PlanInspector
            ref={inspector}
            route={route}
            plan={plan}
            lanes={lanes}
            others={others}
            chosen={chosen}
            choose={choose}
            close={close}
            destinationField={destinationField}
          />
        )}
      </Box>
      {publishing && (
        <PublishDialog
          route={route}
          version={state.version}
          close={() => {
            setPublishing(false)
          }}
        />
      )}
    </Stack>
  )
}

function firstRehearsal(zone: string): Rehearsal {
  return {
    place: NO_PLACE,
    device: DEVICES[0]?.device ?? { type: 'phone', system: '', systemVersion: '', browser: '' },
    languages: [],
    at: '',
    zone,
    repeat: false,
    query: '',
  }
}

function PeriodChoice({ period: { days, choose } }: { period: RoutePlan['period'] }) {
  return (
    <TextField
      select
      size="small"
      variant="standard"
      value={days}
      slotProps={{ select: { 'aria-label': 'Scans of', displayEmpty: true } }}
      onChange={({ target }) => {
        choose(target.value)
      }}
    >
      {PERIODS.map(([value, name]) => (
        <MenuItem key={value} value={value}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  )
}

/** What is chosen of the plan. Its inspector has the keys as soon as it opens; closing gives them back. */
function useChosen(focusDestination: number) {
  const [chosen, choose] = useState<Chosen>(null)
  const inspector = useRef<HTMLDivElement>(null)
  const destinationField = useRef<HTMLInputElement>(null)
  // Before anything is painted: what is typed right after the key is the field's.
  useLayoutEffect(() => {
    if (focusDestination > 0) choose({ kind: 'otherwise' })
  }, [focusDestination])
  const inspected = chosen?.kind === 'lane' ? chosen.id : (chosen?.kind ?? '')
  useLayoutEffect(() => {
    if (inspected === 'otherwise' && focusDestination > 0) destinationField.current?.select()
    else if (inspected !== '') inspector.current?.focus({ preventScroll: true })
  }, [inspected, focusDestination])
  const close = () => {
    // Back to the lane it was opened from, so that the next key goes on from there.
    const row = document.querySelector<HTMLElement>('[aria-label="Signal plan"] [aria-current="true"]')
    choose(null)
    row?.focus()
  }
  return { chosen, choose, close, inspector, destinationField }
}
