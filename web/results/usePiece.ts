import { codesApi } from '@flimbo/core/codes'
import type { Point } from '@flimbo/core/conditions'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'

/** Where the piece hangs that the address names; null where it names none, or nobody said where. */
export function usePiece(): Point | null {
  const id = Number(useSearchParams()[0].get('code')) || undefined
  const code = useAnswer(codesApi.get, { params: { id: id ?? 0 } }, { enabled: id !== undefined }).data
  const { latitude = null, longitude = null } = (id !== undefined && code) || {}
  return useMemo(
    () => (latitude === null || longitude === null ? null : { latitude, longitude }),
    [latitude, longitude],
  )
}
