import { useEffect, useState } from 'react'

/** After so long the screen that was asked for is there, and what may be opened from it is fetched. */
const FETCHED_MS = 300

/** Whether it is time to fetch what keys and buttons open: what is typed right after pressing one is then theirs. */
export function useIsFetched(): boolean {
  const [isFetched, setFetched] = useState(false)
  useEffect(() => {
    const timer = setTimeout(() => {
      setFetched(true)
    }, FETCHED_MS)
    return () => {
      clearTimeout(timer)
    }
  }, [])
  return isFetched
}
