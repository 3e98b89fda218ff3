import { Box, Skeleton, Stack, Tab, Tabs } from '@mui/material'
import { routesApi, type Expectation, type Rehearsal, type WholeRoute } from '@flimbo/core/routing'
import { tagInWords } from '@flimbo/core/visitTags'
import { lazy, Suspense, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { freshKey, Sheet } from '../ui/index.ts'
import { circlesOf } from './circles.ts'
import { Expectations } from './Expectations.tsx'
import { Matrix } from './Matrix.tsx'
import { NO_PLACE, type Rehearsed } from './rehearse.ts'
import { ReviewList } from './ReviewList.tsx'
import { RouteCheck } from './RouteCheck.tsx'
import type { Chosen } from './SignalPlan.tsx'
import { SplitTable } from './SplitTable.tsx'
import { TestScan } from './TestScan.tsx'
import type { RoutePlan } from './useRoutePlan.ts'

const RouteMap = lazy(() => import('./RouteMap.tsx'))

interface Props {
  readonly route: WholeRoute
  readonly plan: RoutePlan
  readonly given: Rehearsal
  readonly rehearsed: Rehearsed | null
  readonly now: number
  readonly set: (change: Partial<Rehearsal>) => void
  readonly choose: (chosen: Chosen) => void
}

/** What can be tried and looked over under a signal plan. */
export function UnderPlan({ route, plan, given, rehearsed, now, set, choose }: Props) {
  const { zone } = useCampaign()
  const [address] = useSearchParams()
  const [tab, setTab] = useState(address.get('tab') === 'check' ? 'check' : 'test')
  const setExpectations = useChange(routesApi.setExpectations)
  const { asked, findings, tagFindings } = plan
  const splits = asked.filter(({ outcome }) => outcome.kind === 'split')
  const expect = (expectations: Expectation[]) => {
    setExpectations.mutate({ params: { id: route.id }, body: { expectations } })
  }
  const { latitude, longitude } = given.place
  return (
    <Sheet pad={false}>
      <Tabs
        value={tab}
        onChange={(_event, next: string) => {
          setTab(next)
        }}
        aria-label="Under the plan"
        variant="scrollable"
        sx={{
          borderBottom: 1,
          borderColor: 'divider',
          minHeight: 40,
          '& .MuiTab-root': { minHeight: 40, textTransform: 'none', py: 0 },
        }}
      >
        <Tab value="test" label="Test scan" />
        <Tab value="matrix" label="Test matrix" />
        <Tab value="map" label="Map" />
        <Tab value="review" label={withCount('Review', findings.length + tagFindings.length)} />
        <Tab value="expect" label={withCount('Expectations', route.expectations.length)} />
        <Tab value="check" label="Destination check" />
        {splits.length > 0 && <Tab value="split" label="Splits" />}
      </Tabs>
      <Box role="tabpanel" sx={{ p: 2 }}>
        {tab === 'test' && (
          <TestScan
            given={given}
            set={set}
            rehearsed={rehearsed}
            codes={plan.codes}
            codeId={plan.codeId}
            chooseCode={plan.chooseCode}
            lanes={asked}
            fires={plan.tags.filter(({ id }) => plan.state.draft.rules.tags.includes(id)).map(tagInWords)}
            keep={(name, leads) => {
              const id = freshKey(
                'l',
                route.expectations.map((each) => each.id),
              )
              expect([...route.expectations, { id, name, rehearsal: given, leads }])
              setTab('expect')
            }}
          />
        )}
        {tab === 'matrix' && <Matrix compiled={plan.compiled} lanes={asked} given={given} now={now} />}
        {tab === 'map' && (
          <Suspense fallback={<Skeleton variant="rounded" height={320} />}>
            <RouteMap
              circles={circlesOf(asked)}
              at={latitude === null || longitude === null ? null : { latitude, longitude }}
              choose={(point) => {
                set({ place: { ...NO_PLACE, ...point, city: 'the point on the map' } })
              }}
            />
          </Suspense>
        )}
        {tab === 'review' && <ReviewList findings={findings} tags={tagFindings} choose={choose} />}
        {tab === 'expect' && (
          <Expectations
            expectations={route.expectations}
            compiled={plan.compiled}
            now={now}
            remove={(id) => {
              expect(route.expectations.filter((each) => each.id !== id))
            }}
          />
        )}
        {tab === 'check' && <RouteCheck id={route.id} zone={zone} />}
        {tab === 'split' && (
          <Stack sx={{ gap: 3 }}>
            {splits.map((each) => (
              <SplitTable
                key={each.id}
                lane={each}
                place={asked.indexOf(each) + 1}
                exits={plan.exits}
                routeId={route.id}
                period={plan.period.days === '' ? {} : { from: plan.period.from }}
              />
            ))}
          </Stack>
        )}
      </Box>
    </Sheet>
  )
}

function withCount(name: string, count: number): string {
  return count > 0 ? `${name} (${String(count)})` : name
}
