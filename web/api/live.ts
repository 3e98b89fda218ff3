import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { liveEvent } from '@flimbo/core/scans'

/** At most this often is everything read anew while scans keep coming. */
const PACE_MS = 700

/** Keeps every figure current: whatever happens in the workspace makes what is shown be read anew. */
export function useLive(): void {
  const queries = useQueryClient()
  useEffect(() => {
    const stream = new EventSource('/api/events')
    let due: ReturnType<typeof setTimeout> | null = null
    const refresh = () => {
      due ??= setTimeout(() => {
        due = null
        void queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== '/session' && queryKey[0] !== '/phone' })
      }, PACE_MS)
    }
    stream.onmessage = (message: MessageEvent<string>) => {
      if (liveEvent.safeParse(JSON.parse(message.data)).success) refresh()
    }
    // After a lost connection something may have been missed.
    stream.onopen = refresh
    return () => {
      stream.close()
      if (due) clearTimeout(due)
    }
  }, [queries])
}
