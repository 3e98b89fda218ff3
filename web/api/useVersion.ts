import { useCallback, useEffect, useRef, useState } from 'react'
import { newerOf } from './call.ts'

/** The version that an edit began from, and what somebody else stored since. Every form and draft saves through one. */
export interface Version<Stored> {
  /** What somebody else stored meanwhile; null where nobody did. Nothing of theirs is overwritten before `rebase`. */
  readonly newer: Stored | null
  /** The version the next save starts from. */
  readonly current: () => number
  /**
   * Saves from the version the edit began with.
   * @returns what is stored now; null where somebody else's newer copy was met, which `newer` then holds
   * @throws whatever else `write` fails with
   */
  readonly save: (write: (version: number) => Promise<Stored>) => Promise<Stored | null>
  /** Goes on from `newer`: the next save replaces it. */
  readonly rebase: () => void
}

const versionIn = ({ version }: { readonly version: number }) => version

/**
 * @param latest the version last seen stored; followed for as long as nothing is edited, and never backwards
 * @param versionOf which number of a stored copy counts its edits, where that is not its version
 */
export function useVersion<Stored extends { readonly version: number }>(
  latest: number,
  isEdited: boolean,
  versionOf: (stored: Stored) => number = versionIn,
): Version<Stored> {
  const base = useRef(latest)
  const [newer, setNewer] = useState<Stored | null>(null)
  const read = useRef(versionOf)
  useEffect(() => {
    read.current = versionOf
    if (!isEdited) base.current = Math.max(base.current, latest)
  })
  const save = useCallback(async (write: (version: number) => Promise<Stored>) => {
    setNewer(null)
    try {
      const saved = await write(base.current)
      base.current = read.current(saved)
      return saved
    } catch (error) {
      const met = newerOf<Stored>(error)
      if (met === null) throw error
      setNewer(met.current)
      return null
    }
  }, [])
  const rebase = useCallback(() => {
    if (newer !== null) base.current = read.current(newer)
    setNewer(null)
  }, [newer])
  const current = () => (isEdited ? base.current : Math.max(base.current, latest))
  return { newer, current, save, rebase }
}
