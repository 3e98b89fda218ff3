import { keepPreviousData, useQueries, useQueryClient } from '@tanstack/react-query'
import { codesApi, type Code, type CODE_SORTS, type CodeFilter, type Group } from '@flimbo/core/codes'
import { useCallback } from 'react'
import { call } from '../api/index.ts'

export interface Listing {
  readonly filter: CodeFilter
  readonly sort: (typeof CODE_SORTS)[number]
  readonly order: 'asc' | 'desc'
  readonly group: Group | ''
}

/** Pieces come in blocks of so many; more than one screen shows. */
export const BLOCK = 100
const LARGE_BLOCK = 500

const inputOf = ({ filter, sort, order, group }: Listing, page: number, pageSize: number) => ({
  query: { ...filter, sort, order, ...(group === '' ? {} : { group }), page, pageSize },
})

export interface Blocks {
  readonly total: number | undefined
  readonly error: Error | null
  readonly fetching: boolean
  /** The piece at a place of the list, where its block is there. */
  readonly at: (piece: number) => Code | undefined
  /** All pieces from one place to another, fetched where they are not there. */
  readonly between: (first: number, last: number) => Promise<Code[]>
  readonly retry: () => void
}

/** Reads those blocks of the list that the lines from one place to another need. */
export function useBlocks(listing: Listing, first: number, last: number): Blocks {
  const queries = useQueryClient()
  const from = Math.floor(Math.max(0, first) / BLOCK)
  const to = Math.floor(Math.max(0, last, first) / BLOCK)
  const pages = Array.from({ length: Math.min(6, to - from + 1) }, (_, i) => from + i)
  // The first block also tells how many there are; it is always wanted.
  const wanted = pages.includes(0) ? pages : [0, ...pages]
  const answers = useQueries({
    queries: wanted.map((page) => {
      const input = inputOf(listing, page, BLOCK)
      return {
        queryKey: [codesApi.list.path, input],
        queryFn: ({ signal }: { signal: AbortSignal }) => call(codesApi.list, input, signal),
        placeholderData: page === 0 ? keepPreviousData : undefined,
      }
    }),
  })
  const blocks = new Map(wanted.map((page, i) => [page, answers[i]?.data?.rows]))

  const between = useCallback(
    async (start: number, end: number): Promise<Code[]> => {
      const rows: Code[] = []
      for (let page = Math.floor(start / LARGE_BLOCK); page <= Math.floor(end / LARGE_BLOCK); page++) {
        const input = inputOf(listing, page, LARGE_BLOCK)
        rows.push(
          ...(
            await queries.fetchQuery({
              queryKey: [codesApi.list.path, input],
              queryFn: () => call(codesApi.list, input),
              staleTime: 1000,
            })
          ).rows,
        )
      }
      const offset = Math.floor(start / LARGE_BLOCK) * LARGE_BLOCK
      return rows.slice(start - offset, end - offset + 1)
    },
    [queries, listing],
  )

  const broken = answers.find(({ isError }) => isError)
  return {
    total: answers[0]?.data?.total,
    error: broken?.error ?? null,
    fetching: answers.some(({ isFetching }) => isFetching),
    at: (piece) => blocks.get(Math.floor(piece / BLOCK))?.[piece % BLOCK],
    between,
    retry: () => {
      for (const answer of answers) void answer.refetch()
    },
  }
}
