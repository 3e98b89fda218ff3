import { codesApi, type Code } from '@flimbo/core/codes'
import {
  allLanes,
  laneSetsApi,
  lanesOfSet,
  routesApi,
  type Compiled,
  type ExitTally,
  type Lane,
  type LaneSet,
  type Names,
  type RouteName,
  type WholeRoute,
} from '@flimbo/core/routing'
import { dayIn, shiftDay } from '@flimbo/core/time'
import { visitTagsApi, type VisitTag } from '@flimbo/core/visitTags'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { usePages } from '../pages/index.ts'
import { codeSettings, compiledDraft, useOnwardRoutes } from './rehearse.ts'
import { findingsOf } from './ReviewList.tsx'
import { useDraft, type DraftState } from './useDraft.ts'
import { useNames } from './useNames.ts'

/** The periods whose scans the plan can count: days until today, by the text that chooses them; empty is ever. */
export const PERIODS = [
  ['7', 'Last 7 days'],
  ['30', 'Last 30 days'],
  ['365', 'Last year'],
  ['', 'Ever'],
] as const

const CODES_SHOWN = 200
/** Before anything was scanned. */
const EVER_SINCE = '2000-01-01'

/** Everything the signal plan of a route and what stands around it show, read from the draft. */
export interface RoutePlan {
  readonly state: DraftState
  readonly period: { days: string; choose: (days: string) => void; from: string; to: string }
  /** Scans of the period by the way they left. */
  readonly exits: readonly ExitTally[]
  /** Scans of the period that passed the lanes. */
  readonly passing: number
  readonly codes: readonly Code[]
  /** The piece whose tags and settings a test scan carries. */
  readonly codeId: number | undefined
  readonly chooseCode: (id: number) => void
  readonly sets: readonly LaneSet[]
  /** The set of shared lanes in use. */
  readonly set: { readonly name: string; readonly lanes: readonly Lane[] } | null
  readonly tags: readonly VisitTag[]
  readonly names: Names
  /** The route's own lanes and the shared ones, in the order they are asked. */
  readonly asked: readonly Lane[]
  /** The draft as the front door would decide by it; null where it cannot be compiled yet. */
  readonly compiled: Compiled | null
  readonly findings: ReturnType<typeof findingsOf>
  /** What the linter says of the destination, seen through the piece that is scanned most. */
  readonly tagFindings: readonly string[]
}

/** How many scans left by an exit. */
export function scansAt(exits: readonly ExitTally[], exit: string): number {
  return exits.reduce((sum, each) => (each.exit === exit ? sum + each.scans : sum), 0)
}

export function useRoutePlan(route: WholeRoute, others: readonly RouteName[], now: number): RoutePlan {
  const { utmCampaign, zone } = useCampaign()
  const state = useDraft(route)
  const { draft } = state
  const [days, chooseDays] = useState('30')
  const [codeId, chooseCode] = useState<number>()
  const today = dayIn(zone, now)
  const from = days === '' ? EVER_SINCE : shiftDay(today, 1 - Number(days))
  const exits =
    useAnswer(routesApi.exits, { params: { id: route.id }, query: days === '' ? {} : { from } }).data?.rows ??
    []
  const codes =
    useAnswer(codesApi.list, {
      query: { routeId: route.id, pageSize: CODES_SHOWN, sort: 'scans', order: 'desc' },
    }).data?.rows ?? []
  const pages = usePages()
  const find = useOnwardRoutes(draft, pages)
  const sets = useAnswer(laneSetsApi.list, {}).data?.rows ?? []
  const tags = useAnswer(visitTagsApi.settings, {}).data?.value.tags ?? []
  const names = useNames((id) => others.find((other) => other.id === id)?.name ?? find(id)?.name)
  const { shared } = draft.rules
  const used = shared && sets.find(({ id }) => id === shared.setId)
  const set = used ? { name: used.name, lanes: lanesOfSet(used.id, used.lanes) } : null
  const settings = codeSettings(codes.find(({ id }) => id === codeId) ?? codes[0], utmCampaign)
  const asked = allLanes(draft.rules, set?.lanes ?? [])
  return {
    state,
    period: { days, choose: chooseDays, from, to: today },
    exits,
    passing: [...asked.map(({ id }) => id), 'otherwise'].reduce((sum, exit) => sum + scansAt(exits, exit), 0),
    codes,
    codeId,
    chooseCode,
    sets,
    set,
    tags,
    names,
    asked,
    compiled: compiledDraft(route, draft, set?.lanes ?? [], pages, settings, find),
    findings: findingsOf(draft, asked, now, state.isPrepared ? null : exits),
    tagFindings:
      codes[0]?.findings.filter(({ field }) => field === 'destination').map(({ sentence }) => sentence) ?? [],
  }
}
