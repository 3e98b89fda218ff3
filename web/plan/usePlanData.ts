import { codesApi } from '@flimbo/core/codes'
import { routesApi } from '@flimbo/core/routing'
import { taggingApi } from '@flimbo/core/tagging'
import { workspaceApi } from '@flimbo/core/workspace'
import { useDeferredValue, useEffect, useMemo, useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { gridColumns } from './columns.tsx'
import { linesOf } from './lines.ts'
import { useArrangement } from './useArrangement.ts'
import { BLOCK, useBlocks } from './useBlocks.ts'

/** What the plan shows: its columns, its arrangement, the pieces on the screen and the lines they make. */
export function usePlanData() {
  const campaign = useCampaign()
  const [search, setSearch] = useState('')
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set())
  const [seen, setSeen] = useSeenBlocks()
  const rules = useAnswer(taggingApi.rules, {})
  const currency = useAnswer(workspaceApi.settings, {}).data?.value.currency ?? ''
  const parameters = rules.data?.value.parameters
  const all = useMemo(
    () => gridColumns(parameters ?? [], campaign.zone, currency),
    [parameters, campaign.zone, currency],
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
  const lines = useMemo(() => linesOf(total, grouped, closed), [total, grouped, closed])
  return {
    /** Every column there is; the arrangement has those that are shown. */
    columns: all,
    arrangement,
    blocks,
    total,
    lines,
    setClosed,
    search,
    setSearch,
    seen,
    setSeen,
    ...useOffers(campaign.id, rules.data?.value.media),
  }
}
export type PlanData = ReturnType<typeof usePlanData>

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

/** What is offered while a cell is typed in, and the routes by the name they are typed as. */
function useOffers(campaignId: number, media: readonly string[] | undefined) {
  const values = useAnswer(taggingApi.values, {}).data
  const routes = useAnswer(routesApi.names, { query: { campaignId } }).data?.rows
  const routeNumbers = useMemo(
    () => new Map((routes ?? []).map(({ id, name }) => [name.toLowerCase(), id])),
    [routes],
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
    }
  }, [media, values, routes])
  return { routeNumbers, offers }
}
