import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { liveEvent } from '@flimbo/core/scans'
import { COUNTED, SUMMED_PATHS, withScans, type Line } from './liveFigures.ts'
import { createPacer } from './pacer.ts'

/** Scans gather for so long before figures move. */
const FIGURES = { soonMs: 500, everyMs: 500, spreadMs: 0 }
/** What the server must sum is read anew soon after a quiet time, and then every quarter of a minute at most. */
const SUMS = { soonMs: 700, everyMs: 15_000, spreadMs: 5000 }
/** What was worked out from the stream is read anew after so long: an answer and a stream may cross on the way. */
const COUNTS = { soonMs: 45_000, everyMs: 60_000, spreadMs: 30_000 }
/** After somebody's change everything shown is read anew. */
const CHANGES = { soonMs: 700, everyMs: 1500, spreadMs: 500 }

const REOPEN_MS = 5000

const pathOf = (queryKey: readonly unknown[]) => String(queryKey[0])

function addTo(queries: QueryClient, lines: readonly Line[]): void {
  const now = Date.now()
  for (const query of queries.getQueryCache().getAll()) {
    const next = withScans(pathOf(query.queryKey), query.state.data, lines, query.state.dataUpdatedAt, now)
    if (next !== query.state.data) queries.setQueryData(query.queryKey, next)
  }
}

/** Keeps what is shown current: figures move by what streams in, and only what cannot be told from it is asked for again. */
export function useLive(): void {
  const queries = useQueryClient()
  useEffect(() => {
    let stream: EventSource | null = null
    let reopen: ReturnType<typeof setTimeout> | null = null
    let lines: Line[] = []
    let isFirst = true
    const readAgain = (which: (path: string) => boolean) => {
      // What is under way already answers with what is stored by then, or is asked again with the next change.
      void queries.invalidateQueries(
        { predicate: ({ queryKey }) => which(pathOf(queryKey)) },
        { cancelRefetch: false },
      )
    }
    const figures = createPacer(() => {
      addTo(queries, lines)
      lines = []
    }, FIGURES)
    const sums = createPacer(() => {
      if (!document.hidden) readAgain((path) => SUMMED_PATHS.has(path))
    }, SUMS)
    const counts = createPacer(() => {
      if (!document.hidden) readAgain((path) => path in COUNTED)
    }, COUNTS)
    const leads = createPacer(() => {
      readAgain((path) => path.startsWith('/leads') || path === '/new-leads')
    }, CHANGES)
    const mails = createPacer(() => {
      readAgain((path) => path.startsWith('/mail') || path.startsWith('/leads') || path === '/notices')
    }, CHANGES)
    const changes = createPacer(() => {
      readAgain((path) => path !== '/session' && path !== '/phone')
    }, CHANGES)

    function open(): void {
      stream = new EventSource('/api/events')
      stream.onmessage = take
      stream.onopen = () => {
        // After a lost connection something may have been missed; after the first there is nothing to miss.
        if (!isFirst) changes.want()
        isFirst = false
      }
      stream.onerror = () => {
        // It comes back by itself where the connection was lost, and not where it was refused: the session has ended.
        if (stream?.readyState !== EventSource.CLOSED) return
        void queries.invalidateQueries({ queryKey: ['/session'] })
        reopen = setTimeout(open, REOPEN_MS)
      }
    }
    const take = (message: MessageEvent<string>) => {
      const event = liveEvent.safeParse(JSON.parse(message.data))
      if (!event.success) return
      if (event.data.type === 'job') {
        readAgain((path) => path === '/jobs')
        return
      }
      if (event.data.type === 'change') {
        changes.want()
        return
      }
      if (event.data.type === 'mails') {
        mails.want()
        return
      }
      if (event.data.type === 'leads') {
        leads.want()
        return
      }
      lines.push(...event.data.scans)
      figures.want()
      sums.want()
      counts.want()
    }
    open()
    const shown = () => {
      if (!document.hidden) sums.want()
    }
    document.addEventListener('visibilitychange', shown)
    return () => {
      document.removeEventListener('visibilitychange', shown)
      stream?.close()
      if (reopen) clearTimeout(reopen)
      for (const each of [figures, sums, counts, changes, leads, mails]) each.stop()
    }
  }, [queries])
}
