import { dayIn, shiftDay } from '@flimbo/core/time'
import {
  Alert,
  Box,
  Button,
  Link,
  MenuItem,
  Skeleton,
  Stack,
  Tab,
  Tabs,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import {
  allLanes,
  laneSetsApi,
  lanesOfSet,
  routesApi,
  type Lane,
  type Rehearsal,
  type WholeRoute,
  type RouteName,
} from '@flimbo/core/routing'
import { tagInWords, visitTagsApi } from '@flimbo/core/visitTags'
import { lazy, Suspense, useLayoutEffect, useRef, useState } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { useAnswer, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { usePages } from '../pages/index.ts'
import { counted } from '@flimbo/core/formats'
import { Sheet, Trouble, useKeys, useNow } from '../ui/index.ts'
import { Expectations } from './Expectations.tsx'
import { LaneInspector } from './LaneInspector.tsx'
import { Matrix } from './Matrix.tsx'
import { OnTheWayInspector } from './OnTheWayInspector.tsx'
import { PublishDialog } from './PublishDialog.tsx'
import { codeSettings, compiledDraft, DEVICES, NO_PLACE, rehearse, useLedTo } from './rehearse.ts'
import { RouteCheck } from './RouteCheck.tsx'
import { ReviewList, findingsOf } from './ReviewList.tsx'
import { LifeInspector, OtherwiseInspector } from './RouteInspector.tsx'
import { circlesOf } from './circles.ts'
import { SettingsView } from './SettingsView.tsx'
import { SharedInspector } from './SharedInspector.tsx'
import { SignalPlan, type Chosen } from './SignalPlan.tsx'
import { SplitTable } from './SplitTable.tsx'
import { TestScan } from './TestScan.tsx'
import { freshKey, useDraft, type DraftState } from './useDraft.ts'
import { useNames } from './useNames.ts'

const RouteMap = lazy(() => import('./RouteMap.tsx'))
const PERIODS = [
  ['7', 'Last 7 days'],
  ['30', 'Last 30 days'],
  ['365', 'Last year'],
  ['', 'Ever'],
] as const
const CODES_SHOWN = 200

interface Props {
  readonly id: number
  readonly others: readonly RouteName[]
  readonly focusDestination: number
}

/** One route: its signal plan, the test scan under it, and what is chosen at the right; or its settings and changes. */
export function RouteEditor({ id, others, focusDestination }: Props) {
  const { data, isError, error, refetch } = useAnswer(routesApi.get, { params: { id } })
  if (isError)
    return (
      <Trouble
        error={error}
        again={() => {
          void refetch()
        }}
      />
    )
  if (data?.id !== id) return <Skeleton variant="rounded" height={320} />
  return (
    <Editor
      route={data}
      others={others.filter((other) => other.id !== id)}
      focusDestination={focusDestination}
    />
  )
}

function Editor({
  route,
  others,
  focusDestination,
}: {
  route: WholeRoute
  others: readonly RouteName[]
  focusDestination: number
}) {
  const { zone } = useCampaign()
  const [address, setAddress] = useSearchParams()
  const view = address.get('view') === 'settings' ? 'settings' : 'plan'
  const show = (next: string | null) => {
    if (next)
      setAddress(
        (was) => {
          was.set('route', String(route.id))
          if (next === 'plan') was.delete('view')
          else was.set('view', next)
          return was
        },
        { replace: true },
      )
  }
  return (
    <Stack spacing={2} sx={{ minWidth: 0 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2 }}>
        <Typography variant="h2" sx={{ flex: 1, fontSize: '1.1rem', minWidth: 0 }} noWrap>
          {route.name}
        </Typography>
        <Link component={RouterLink} to={`../results?route=${String(route.id)}`} variant="body2">
          Results of this route
        </Link>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={view}
          aria-label="View"
          onChange={(_event, next: string | null) => {
            show(next)
          }}
        >
          <ToggleButton value="plan">Signal plan</ToggleButton>
          <ToggleButton value="settings">Settings and changes</ToggleButton>
        </ToggleButtonGroup>
      </Stack>
      {view === 'settings' ? (
        <SettingsView route={route} zone={zone} />
      ) : (
        <PlanView route={route} others={others} zone={zone} focusDestination={focusDestination} />
      )}
    </Stack>
  )
}

function stateInWords({ isPrepared, isKept }: DraftState): string {
  if (!isPrepared) return 'Live for every scan.'
  return isKept ? 'Draft saved, not live yet.' : 'Saving…'
}

function PlanView({
  route,
  others,
  zone,
  focusDestination,
}: {
  route: WholeRoute
  others: readonly RouteName[]
  zone: string
  focusDestination: number
}) {
  const { utmCampaign } = useCampaign()
  const now = useNow()
  const state = useDraft(route)
  const { draft, edit } = state
  const [chosen, choose] = useState<Chosen>(null)
  const [address] = useSearchParams()
  const [tab, setTab] = useState(address.get('tab') === 'check' ? 'check' : 'test')
  const [days, setDays] = useState('30')
  const [publishing, setPublishing] = useState(false)
  const [codeId, chooseCode] = useState<number>()
  const [given, setGiven] = useState<Rehearsal>({
    place: NO_PLACE,
    device: DEVICES[0]?.device ?? { type: 'phone', system: '', systemVersion: '', browser: '' },
    languages: [],
    at: '',
    zone,
    repeat: false,
    query: '',
  })
  const setTest = (change: Partial<Rehearsal>) => {
    setGiven((was) => ({ ...was, ...change }))
  }
  const destinationField = useRef<HTMLInputElement>(null)
  const dropDraft = useChange(routesApi.dropDraft)
  const setExpectations = useChange(routesApi.setExpectations)
  const exits =
    useAnswer(routesApi.exits, {
      params: { id: route.id },
      query: days === '' ? {} : { from: shiftDay(dayIn(zone, now), 1 - Number(days)) },
    }).data?.rows ?? []
  const codes =
    useAnswer(codesApi.list, {
      query: { routeId: route.id, pageSize: CODES_SHOWN, sort: 'scans', order: 'desc' },
    }).data?.rows ?? []
  const pages = usePages()
  const find = useLedTo(draft, pages)
  const sets = useAnswer(laneSetsApi.list, {}).data?.rows ?? []
  const tags = useAnswer(visitTagsApi.settings, {}).data?.value.tags ?? []
  const names = useNames((id) => others.find((other) => other.id === id)?.name ?? find(id)?.name)
  const { shared } = draft.rules
  const used = shared && sets.find(({ id }) => id === shared.setId)
  const set = used ? { name: used.name, lanes: lanesOfSet(used.id, used.lanes) } : null
  const compiled = compiledDraft(
    route,
    draft,
    set?.lanes ?? [],
    pages,
    codeSettings(codes.find(({ id }) => id === codeId) ?? codes[0], utmCampaign),
    find,
  )
  const rehearsed = compiled && rehearse(compiled, given, now)
  const { lanes } = draft.rules
  const asked = allLanes(draft.rules, set?.lanes ?? [])
  const findings = findingsOf(draft, asked, now, state.isPrepared ? null : exits)
  // What the linter says of the destination itself, seen through the piece that is scanned most.
  const tagFindings =
    codes[0]?.findings.filter(({ field }) => field === 'destination').map(({ sentence }) => sentence) ?? []
  const splits = asked.filter(({ outcome }) => outcome.kind === 'split')
  const open = (next: Chosen) => {
    choose(next)
  }
  // Before anything is painted: what is typed right after the key is the field's.
  useLayoutEffect(() => {
    if (focusDestination === 0) return
    choose({ kind: 'otherwise' })
  }, [focusDestination])
  const inspected = chosen?.kind === 'lane' ? chosen.id : (chosen?.kind ?? '')
  const inspector = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    if (inspected === 'otherwise' && focusDestination > 0) destinationField.current?.select()
    else if (inspected !== '') inspector.current?.focus({ preventScroll: true })
  }, [inspected, focusDestination])
  useKeys({
    l: () => {
      addLane()
    },
    p: () => {
      if (state.isPrepared && state.isKept) setPublishing(true)
    },
  })

  const setLanes = (change: (lanes: readonly Lane[]) => Lane[]) => {
    edit((was) => ({ ...was, rules: { ...was.rules, lanes: change(was.rules.lanes) } }))
  }
  function addLane(copied?: Lane): void {
    const id = freshKey(lanes.map((lane) => lane.id))
    setLanes((all) => [
      ...all,
      copied
        ? { ...copied, id, name: copied.name === '' ? '' : `${copied.name} (copy)` }
        : {
            id,
            name: '',
            condition: EVERY_SCAN,
            outcome: { kind: 'address', address: draft.destination },
            resting: false,
          },
    ])
    choose({ kind: 'lane', id })
  }
  const lane = chosen?.kind === 'lane' ? lanes.find(({ id }) => id === chosen.id) : undefined
  const from = days === '' ? '2000-01-01' : shiftDay(dayIn(zone, now), 1 - Number(days))
  const rowsOf = (exit: string, place: string) => (
    <Link
      component={RouterLink}
      variant="body2"
      to={`../results?route=${String(route.id)}&exit=${exit}&lane=${place}&from=${from}&to=${dayIn(zone, now)}`}
    >
      {counted(
        exits.filter((each) => each.exit === exit).reduce((sum, { scans }) => sum + scans, 0),
        'scan',
      )}{' '}
      in the period: show the rows
    </Link>
  )
  const close = () => {
    // Back to the lane it was opened from, so that the next key goes on from there.
    const row = document.querySelector<HTMLElement>('[aria-label="Signal plan"] [aria-current="true"]')
    choose(null)
    row?.focus()
  }

  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'flex-start', minWidth: 0 }}>
      <Stack spacing={2} sx={{ flex: 1, minWidth: 0 }}>
        <Sheet pad={false}>
          <Stack
            direction="row"
            sx={{
              alignItems: 'center',
              gap: 1,
              px: 2,
              py: 1,
              borderBottom: 1,
              borderColor: 'divider',
              bgcolor: state.isPrepared ? 'action.hover' : undefined,
              flexWrap: 'wrap',
            }}
          >
            <Typography variant="body2" role="status" sx={{ flex: 1, minWidth: 160 }}>
              {state.fault === null ? (
                stateInWords(state)
              ) : (
                <Box component="span" sx={{ color: 'error.main' }}>
                  Not saved yet: {state.fault}
                </Box>
              )}
            </Typography>
            {state.undo && (
              <Button color="inherit" onClick={state.undo}>
                Undo
              </Button>
            )}
            {state.isPrepared && state.isKept && (
              <Button
                color="inherit"
                onClick={() => {
                  dropDraft.mutate({ params: { id: route.id } })
                  choose(null)
                }}
              >
                Discard draft
              </Button>
            )}
            <Button
              variant="contained"
              disabled={!state.isPrepared || !state.isKept || state.fault !== null}
              onClick={() => {
                setPublishing(true)
              }}
            >
              Publish…
            </Button>
          </Stack>
          {state.overtaken && (
            <Alert
              severity="warning"
              variant="outlined"
              sx={{ m: 1 }}
              action={
                <>
                  <Button color="inherit" onClick={state.takeTheirs}>
                    Keep the stored version
                  </Button>
                  <Button color="inherit" onClick={state.keepMine}>
                    Overwrite with mine
                  </Button>
                </>
              }
            >
              Someone else changed this draft. Nothing was overwritten.
            </Alert>
          )}
          <SignalPlan
            period={
              <TextField
                select
                size="small"
                variant="standard"
                value={days}
                slotProps={{ select: { 'aria-label': 'Scans of', displayEmpty: true } }}
                onChange={({ target }) => {
                  setDays(target.value)
                }}
              >
                {PERIODS.map(([value, name]) => (
                  <MenuItem key={value} value={value}>
                    {name}
                  </MenuItem>
                ))}
              </TextField>
            }
            route={route}
            state={state}
            set={set}
            exits={exits}
            zone={zone}
            names={names}
            chosen={chosen}
            choose={open}
            addLane={() => {
              addLane()
            }}
            lit={rehearsed?.decision.exit ?? null}
          />
        </Sheet>
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
            <Tab value="matrix" label="Many at once" />
            <Tab value="map" label="Map" />
            <Tab
              value="review"
              label={`Review${findings.length + tagFindings.length > 0 ? ` (${String(findings.length + tagFindings.length)})` : ''}`}
            />
            <Tab
              value="expect"
              label={`Expectations${route.expectations.length > 0 ? ` (${String(route.expectations.length)})` : ''}`}
            />
            <Tab value="check" label="Destination check" />
            {splits.length > 0 && <Tab value="split" label="Splits" />}
          </Tabs>
          <Box role="tabpanel" sx={{ p: 2 }}>
            {tab === 'test' && (
              <TestScan
                given={given}
                set={setTest}
                rehearsed={rehearsed}
                codes={codes}
                codeId={codeId}
                chooseCode={chooseCode}
                lanes={asked}
                fires={tags.filter(({ id }) => draft.rules.tags.includes(id)).map(tagInWords)}
                keep={(name, leads) => {
                  setExpectations.mutate({
                    params: { id: route.id },
                    body: {
                      expectations: [
                        ...route.expectations,
                        {
                          id: freshKey(route.expectations.map(({ id }) => id)),
                          name,
                          rehearsal: given,
                          leads,
                        },
                      ],
                    },
                  })
                  setTab('expect')
                }}
              />
            )}
            {tab === 'matrix' && <Matrix compiled={compiled} given={given} now={now} />}
            {tab === 'map' && (
              <Suspense fallback={<Skeleton variant="rounded" height={320} />}>
                <RouteMap
                  circles={circlesOf(asked)}
                  at={
                    given.place.latitude === null || given.place.longitude === null
                      ? null
                      : { latitude: given.place.latitude, longitude: given.place.longitude }
                  }
                  choose={(point) => {
                    setTest({ place: { ...NO_PLACE, ...point, city: 'the point on the map' } })
                  }}
                />
              </Suspense>
            )}
            {tab === 'review' && <ReviewList findings={findings} tags={tagFindings} choose={open} />}
            {tab === 'expect' && (
              <Expectations
                expectations={route.expectations}
                compiled={compiled}
                now={now}
                remove={(id) => {
                  setExpectations.mutate({
                    params: { id: route.id },
                    body: { expectations: route.expectations.filter((each) => each.id !== id) },
                  })
                }}
              />
            )}
            {tab === 'check' && <RouteCheck id={route.id} zone={zone} />}
            {tab === 'split' && (
              <Stack sx={{ gap: 3 }}>
                {splits.map((each) => (
                  <SplitTable key={each.id} lane={each} place={asked.indexOf(each) + 1} exits={exits} />
                ))}
              </Stack>
            )}
          </Box>
        </Sheet>
      </Stack>
      {chosen && (
        <Box
          ref={inspector}
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
              rows={rowsOf(lane.id, String(asked.indexOf(lane) + 1))}
              lane={lane}
              place={asked.indexOf(lane) + 1}
              zone={zone}
              others={others}
              close={close}
              copy={() => {
                addLane(lane)
              }}
              change={(next) => {
                setLanes((all) => all.map((each) => (each.id === lane.id ? next : each)))
              }}
              remove={() => {
                setLanes((all) => all.filter(({ id }) => id !== lane.id))
                choose(null)
              }}
            />
          )}
          {chosen.kind === 'otherwise' && (
            <OtherwiseInspector
              findings={tagFindings}
              rows={rowsOf('otherwise', '')}
              state={state}
              close={close}
              inputRef={destinationField}
            />
          )}
          {chosen.kind === 'life' && <LifeInspector state={state} zone={zone} close={close} />}
          {chosen.kind === 'shared' && <SharedInspector state={state} sets={sets} close={close} />}
          {chosen.kind === 'onTheWay' && (
            <OnTheWayInspector route={route} state={state} tags={tags} close={close} />
          )}
        </Box>
      )}
      {publishing && (
        <PublishDialog
          route={route}
          version={state.version}
          close={() => {
            setPublishing(false)
          }}
        />
      )}
    </Box>
  )
}
