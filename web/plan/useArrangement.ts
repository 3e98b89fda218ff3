import { planApi, type PlanView } from '@flimbo/core/plan'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { call, useAnswer } from '../api/index.ts'
import { USUAL_COLUMNS, type GridColumn } from './columns.tsx'
import type { Listing } from '../codes/index.ts'

export type ViewValue = PlanView['value']
type Narrowing = Omit<Listing['filter'], 'campaignId' | 'routeId'>

/** How the plan is looked at: which columns, how wide, in which order, and which pieces. Columns and widths are remembered for the person. */
export function useArrangement(campaignId: number, all: readonly GridColumn[]) {
  const queries = useQueryClient()
  const remembered = useAnswer(planApi.preferences, {})
  const [chosen, setChosen] = useState<readonly string[] | null>(null)
  const [widths, setWidths] = useState<Readonly<Record<string, number>>>({})
  const [order, setOrder] = useState<Pick<Listing, 'sort' | 'order' | 'group'>>({
    sort: 'createdAt',
    order: 'asc',
    group: '',
  })
  const [narrowing, setNarrowing] = useState<Narrowing>({})
  const latest = useRef(widths)
  useEffect(() => {
    latest.current = widths
  })

  const visible = chosen ?? remembered.data?.planColumns ?? USUAL_COLUMNS
  const columns = useMemo(() => all.filter(({ id }) => visible.includes(id)), [all, visible])
  const widthOf = useMemo(
    () => columns.map(({ id, width }) => widths[id] ?? remembered.data?.planWidths[id] ?? width),
    [columns, widths, remembered.data],
  )
  const listing = useMemo<Listing>(
    () => ({ ...order, filter: { campaignId, ...narrowing } }),
    [order, campaignId, narrowing],
  )

  const remember = useCallback(
    (body: Parameters<typeof call<typeof planApi.changePreferences>>[1]['body']) => {
      // What somebody only looks at is never worth an error message: the next change tries again.
      void call(planApi.changePreferences, { body }).then(
        (now) => {
          queries.setQueryData([planApi.preferences.path, {}], now)
        },
        () => undefined,
      )
    },
    [queries],
  )
  const choose = useCallback(
    (ids: readonly string[]) => {
      setChosen(ids)
      remember({ planColumns: [...ids] })
    },
    [remember],
  )

  return {
    ready: remembered.data !== undefined || remembered.isError,
    columns,
    widths: widthOf,
    listing,
    visible,
    narrowing,
    order,
    choose,
    setOrder,
    setNarrowing,
    resize: useCallback((id: string, width: number) => {
      setWidths((old) => ({ ...old, [id]: width }))
    }, []),
    resized: useCallback(() => {
      remember({ planWidths: { ...remembered.data?.planWidths, ...latest.current } })
    }, [remember, remembered.data]),
    /** Looks at the plan by a saved view. */
    lookBy: useCallback(({ columns: ids, sort, order: direction, group, filter }: ViewValue) => {
      setChosen(ids)
      setOrder({ sort: sort as Listing['sort'], order: direction, group })
      setNarrowing(filter)
    }, []),
    value: {
      columns: [...visible],
      sort: order.sort,
      order: order.order,
      group: order.group,
      filter: narrowing,
    } satisfies ViewValue,
  }
}
export type Arrangement = ReturnType<typeof useArrangement>
