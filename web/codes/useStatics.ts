import { useQueries } from '@tanstack/react-query'
import { staticCodesApi, type StaticCode } from '@flimbo/core/staticCodes'
import { useMemo } from 'react'
import { call, useAnswer } from '../api/index.ts'

const PAGE_SIZE = 500

/** All static codes of a campaign, by name: it has no more than people can tell apart. */
export function useStatics(campaignId: number) {
  const page = (n: number) => ({ query: { campaignId, pageSize: PAGE_SIZE, page: n } })
  const first = useAnswer(staticCodesApi.list, page(0))
  const total = first.data?.total
  const pages = Array.from(
    { length: Math.max(0, Math.ceil((total ?? 0) / PAGE_SIZE) - 1) },
    (_each, i) => i + 1,
  )
  const more = useQueries({
    queries: pages.map((n) => ({
      queryKey: [staticCodesApi.list.path, page(n)],
      queryFn: ({ signal }: { signal: AbortSignal }) => call(staticCodesApi.list, page(n), signal),
    })),
    combine: (answers) => answers.flatMap(({ data }) => data?.rows ?? []),
  })
  const rows: readonly StaticCode[] | undefined = useMemo(
    () => first.data && [...first.data.rows, ...more],
    [first.data, more],
  )
  return { rows, error: first.error, retry: () => void first.refetch() }
}

/** Whether a static code is meant by what is typed into a filter: every word stands somewhere in it. */
export function isNamedBy(search: string, { name, place, reference, note, text }: StaticCode): boolean {
  const all = [name, place, reference, note, text].join(' ').toLowerCase()
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => all.includes(word))
}
