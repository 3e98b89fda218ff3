import type { Campaign } from '@flimbo/core/campaigns'
import { codesApi, type CodeFilter } from '@flimbo/core/codes'
import { houseStylesApi } from '@flimbo/core/houseStyles'
import { PLAIN_STYLE } from '@flimbo/core/plan'
import { routesApi } from '@flimbo/core/routing'
import type { StaticCode } from '@flimbo/core/staticCodes'
import { taggingApi } from '@flimbo/core/tagging'
import { workspaceApi } from '@flimbo/core/workspace'
import { useDeferredValue, useEffect, useMemo, useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { stylesFor, useStyles } from '../symbol/index.ts'
import { gridColumns } from './columns.tsx'
import { linesOf } from './lines.ts'
import { useArrangement } from './useArrangement.ts'
import { BLOCK, isNamedBy, useBlocks, useStatics } from '../codes/index.ts'

/** What the plan shows: its columns, its arrangement, the pieces on the screen and the lines they make. */
export function usePlanData() {
  const campaign = useCampaign()
  const [search, setSearch] = useState('')
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set())
  const [seen, setSeen] = useSeenBlocks()
  const rules = useAnswer(taggingApi.rules, {})
  const currency = useAnswer(workspaceApi.settings, {}).data?.value.currency ?? ''
  const parameters = rules.data?.value.parameters
  const { lookOf } = useStyles()
  const all = useMemo(
    () => gridColumns(parameters ?? [], campaign.zone, currency, lookOf),
    [parameters, campaign.zone, currency, lookOf],
  )
  const arrangement = useArrangement(campaign.id, all)
  const { listing, setNarrowing } = arrangement
  const asked = useDeferredValue(search.trim())
  useEffect(() => {
    setNarrowing(({ search: _search, ...rest }) => (asked === '' ? rest : { ...rest, search: asked }))
  }, [asked, setNarrowing])

  const blocks = useBlocks(listing, seen.first, seen.last)
  const total = blocks.total ?? 0
  const groups = useAnswer(
    codesApi.groups,
    { query: { ...listing.filter, by: listing.group || 'medium' } },
    { enabled: listing.group !== '' },
  )
  const grouped = listing.group === '' ? null : (groups.data?.rows ?? null)
  const statics = useShownStatics(campaign.id, listing.filter)
  const lines = useMemo(
    () => linesOf(total, grouped, closed, statics.length),
    [total, grouped, closed, statics.length],
  )
  return {
    /** Every column there is; the arrangement has those that are shown. */
    columns: all,
    arrangement,
    blocks,
    total,
    lines,
    /** The static codes that stand below the pieces. */
    statics,
    setClosed,
    search,
    setSearch,
    seen,
    setSeen,
    ...useOffers(campaign, rules.data?.value.media),
  }
}
export type PlanData = ReturnType<typeof usePlanData>

const NO_STATICS: readonly StaticCode[] = []

/** Static codes have no route, tags or state: a plan that is narrowed by those shows none of them. */
function useShownStatics(campaignId: number, filter: CodeFilter): readonly StaticCode[] {
  const { rows = NO_STATICS } = useStatics(campaignId)
  return useMemo(() => {
    const { campaignId: _campaign, search = '', print, ...rest } = filter
    const isNarrowed = Object.values(rest).some((value) => value !== undefined && value !== 'current')
    if (isNarrowed) return NO_STATICS
    return rows.filter(
      (code) => isNamedBy(search.trim(), code) && (print === undefined || code.print.state === print),
    )
  }, [rows, filter])
}

/** The pieces on the screen, as exact as blocks are: it changes only where other blocks are needed. */
function useSeenBlocks() {
  const [seen, setSeen] = useState({ first: 0, last: BLOCK })
  const set = useMemo(
    () => (first: number, last: number) => {
      setSeen((old) => {
        const isSame =
          Math.floor(old.first / BLOCK) === Math.floor(first / BLOCK) &&
          Math.floor(old.last / BLOCK) === Math.floor(last / BLOCK)
        return isSame ? old : { first, last }
      })
    },
    [],
  )
  return [seen, set] as const
}

/** What is offered while a cell is typed in, and the routes and house styles by the names they are typed as. */
function useOffers({ id: campaignId, clientId }: Campaign, media: readonly string[] | undefined) {
  const values = useAnswer(taggingApi.values, {}).data
  const routes = useAnswer(routesApi.names, { query: { campaignId } }).data?.rows
  const styles = useAnswer(houseStylesApi.list, {}).data?.rows
  const named = useMemo(
    () => ({
      routes: new Map((routes ?? []).map(({ id, name }) => [name.toLowerCase(), id])),
      styles: styles ?? [],
    }),
    [routes, styles],
  )
  const offers = useMemo(() => {
    const used = (field: 'medium' | 'source' | 'content' | 'term') =>
      (values?.[field] ?? []).map(({ value }) => value)
    return {
      medium: [...new Set([...(media ?? []), ...used('medium')])],
      source: used('source'),
      content: used('content'),
      term: used('term'),
      route: (routes ?? []).map(({ name }) => name),
      style: [PLAIN_STYLE, ...stylesFor(styles ?? [], clientId).map(({ name }) => name)],
    }
  }, [media, values, routes, styles, clientId])
  return { named, offers }
}
