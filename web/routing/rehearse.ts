import { utmOf } from '@flimbo/core/tagging'
import {
  compile,
  decide,
  type Arrival,
  type CodeSettings,
  type Compiled,
  type Decision,
  type FindRoute,
  type Lane,
  type LinkedPage,
  type RouteSettings,
  type TraceStep,
  type WholeRoute,
  arrivalOf,
  ONWARD_MAX,
  routesApi,
  routesLedTo,
} from '@flimbo/core/routing'
import type { Rehearsal } from '@flimbo/core/routing'
import type { Code } from '@flimbo/core/codes'
import { useQueries, useQueryClient } from '@tanstack/react-query'
import { call } from '../api/index.ts'
import type { Draft } from './useDraft.ts'

/** Devices a test scan can be made with; the names are those that phones and computers give themselves. */
export const DEVICES: readonly { name: string; device: Rehearsal['device'] }[] = [
  {
    name: 'Phone, iOS 18',
    device: { type: 'phone', system: 'iOS', systemVersion: '18.5', browser: 'Safari' },
  },
  {
    name: 'Phone, iOS 16',
    device: { type: 'phone', system: 'iOS', systemVersion: '16.7', browser: 'Safari' },
  },
  {
    name: 'Phone, Android 15',
    device: { type: 'phone', system: 'Android', systemVersion: '15', browser: 'Chrome' },
  },
  {
    name: 'Phone, Android 12',
    device: { type: 'phone', system: 'Android', systemVersion: '12', browser: 'Firefox' },
  },
  {
    name: 'Tablet, iOS 17',
    device: { type: 'tablet', system: 'iOS', systemVersion: '17.6', browser: 'Safari' },
  },
  {
    name: 'Tablet, Android 14',
    device: { type: 'tablet', system: 'Android', systemVersion: '14', browser: 'Chrome' },
  },
  {
    name: 'Computer, Windows',
    device: { type: 'computer', system: 'Windows', systemVersion: '10', browser: 'Edge' },
  },
  {
    name: 'Computer, macOS',
    device: { type: 'computer', system: 'macOS', systemVersion: '10.15.7', browser: 'Safari' },
  },
]

export const NO_PLACE: Rehearsal['place'] = {
  country: '',
  region: '',
  city: '',
  latitude: null,
  longitude: null,
}

/** A code's settings as the engine takes them; one without tags where the route has no code. */
export function codeSettings(code: Code | undefined, campaign: string): CodeSettings {
  if (!code) return { state: 'live', utm: utmOf({ source: '', medium: '', term: '', content: '' }, campaign) }
  const { state, extra, slug, name, latitude, longitude, otherwise } = code
  return {
    state,
    utm: utmOf(code, campaign),
    extra,
    slug,
    label: name,
    place: latitude === null || longitude === null ? null : { latitude, longitude },
    otherwise,
  }
}

const settingsOf = (
  { name, state, destination, rules, sharedLanes, locked }: WholeRoute,
  pages: readonly LinkedPage[],
): RouteSettings => ({ name, state, destination, rules, sharedLanes, pages, locked })

/** The routes that some routes lead on to, as deep as the front door follows, of those that are known by now. */
function onwardRoutes(first: readonly number[], known: (id: number) => WholeRoute | undefined): number[] {
  const found = new Set(first)
  let fresh = first
  for (let depth = 1; depth < ONWARD_MAX && fresh.length > 0; depth++) {
    fresh = fresh
      .flatMap((id) => {
        const route = known(id)
        return route ? routesLedTo(route.rules) : []
      })
      .filter((id) => !found.has(id))
    for (const id of fresh) found.add(id)
  }
  return [...found]
}

/** The routes that a draft leads on to, read as they are needed, and theirs. */
export function useOnwardRoutes(draft: Draft, pages: readonly LinkedPage[]): FindRoute {
  const queries = useQueryClient()
  const keyOf = (id: number) => [routesApi.get.path, { params: { id } }]
  // With each answer the way goes on by a step: the one below is asked for then.
  const wanted = onwardRoutes(routesLedTo(draft.rules), (id) => queries.getQueryData<WholeRoute>(keyOf(id)))
  const answers = useQueries({
    queries: wanted.map((id) => ({
      queryKey: keyOf(id),
      queryFn: () => call(routesApi.get, { params: { id } }),
    })),
  })
  const found = new Map(
    answers.flatMap(({ data }) => (data ? [[data.id, settingsOf(data, pages)] as const] : [])),
  )
  return (id) => found.get(id) ?? null
}

/** A draft made ready, as the front door makes it ready when it is published. */
export function compiledDraft(
  route: WholeRoute,
  draft: Draft,
  sharedLanes: readonly Lane[],
  pages: readonly LinkedPage[],
  code: CodeSettings,
  find: FindRoute,
): Compiled | null {
  try {
    return compile(
      {
        code,
        route: {
          name: route.name,
          state: route.state,
          destination: draft.destination,
          rules: draft.rules,
          sharedLanes,
          pages,
          locked: route.locked,
        },
      },
      find,
    )
  } catch {
    // An address that is still being typed.
    return null
  }
}

export interface Rehearsed {
  readonly decision: Decision
  readonly trace: readonly TraceStep[]
  readonly arrival: Arrival
}

export function rehearse(compiled: Compiled, given: Rehearsal, now: number): Rehearsed {
  const trace: TraceStep[] = []
  const arrival = arrivalOf(given, now)
  return { decision: decide(compiled, arrival, trace), trace, arrival }
}
