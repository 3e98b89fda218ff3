import { useEffect, useRef, useState } from 'react'
import { sentenceOf } from './call.ts'
import { oneAtATime } from './oneAtATime.ts'
import { useVersion } from './useVersion.ts'

/** What is edited, and how it is saved. `Whole` is what the server answers with. */
interface Edited<Draft, Whole> {
  readonly stored: Draft
  /** The number of what is stored: a change from an older one is not made. */
  readonly version: number
  readonly versionOf: (whole: Whole) => number
  readonly send: (version: number, draft: Draft) => Promise<Whole>
  /** Why a draft cannot be sent as it is; null where it can. */
  readonly faultOf: (draft: Draft) => string | null
}

export interface Autosave<Draft> {
  readonly draft: Draft
  /** Whether every edit has reached the server. */
  readonly isKept: boolean
  /** Why the last edit could not be kept yet; null where nothing is wrong. */
  readonly fault: string | null
  /** Somebody else saved meanwhile. */
  readonly isOvertaken: boolean
  /** The number of what is stored by now. */
  readonly version: number
  readonly edit: (change: (draft: Draft) => Draft) => void
  readonly undo: (() => void) | null
  /** Somebody else's in place of one's own. */
  readonly keepStored: () => void
  /** One's own in place of somebody else's. */
  readonly overwrite: () => void
}

const QUIET_MS = 500
const TYPING_MS = 1000
const UNDO_MAX = 50
const UNREACHED =
  'The server could not be reached. What you did is still here and is tried again with your next edit.'

/** Keeps a draft: each edit goes to the server by itself, half a second after the last, and can be taken back. */
export function useAutosave<Draft, Whole extends { readonly version: number }>({
  stored,
  version: storedVersion,
  versionOf,
  send,
  faultOf,
}: Edited<Draft, Whole>): Autosave<Draft> {
  const [local, setLocal] = useState<{ readonly draft: Draft } | null>(null)
  const [past, setPast] = useState<readonly Draft[]>([])
  const [fault, setFault] = useState<string | null>(null)
  const edited = useRef(0)
  const version = useVersion<Whole>(storedVersion, local !== null, versionOf)
  const isOvertaken = version.newer !== null
  const draft = local ? local.draft : stored
  const latest = useRef({ send, faultOf, version })
  useEffect(() => {
    latest.current = { send, faultOf, version }
  })
  // One save at a time: the next starts from the number that the one before it was answered with.
  const save = useRef(
    oneAtATime(async (edit: { readonly draft: Draft }) => {
      const { version: numbers, send: toServer } = latest.current
      try {
        const saved = await numbers.save((from) => toServer(from, edit.draft))
        if (saved === null) return
        setFault(null)
        setLocal((now) => (now === edit ? null : now))
      } catch (error) {
        setFault(sentenceOf(error, UNREACHED))
      }
    }),
  )
  useEffect(() => {
    if (local === null || isOvertaken) return
    const wrong = latest.current.faultOf(local.draft)
    if (wrong !== null) {
      setFault(wrong)
      return
    }
    const later = setTimeout(() => {
      save.current(local)
    }, QUIET_MS)
    return () => {
      clearTimeout(later)
    }
  }, [local, isOvertaken])

  const back = past.at(-1)
  return {
    draft,
    fault,
    isOvertaken,
    version: version.current(),
    isKept: local === null,
    edit(change) {
      // What is typed in one go is taken back in one go.
      const at = Date.now()
      if (at - edited.current > TYPING_MS) setPast((all) => [...all.slice(1 - UNDO_MAX), draft])
      edited.current = at
      setLocal({ draft: change(draft) })
      setFault(null)
    },
    undo:
      back === undefined
        ? null
        : () => {
            setPast((all) => all.slice(0, -1))
            setLocal({ draft: back })
          },
    keepStored() {
      version.rebase()
      setLocal(null)
      setPast([])
    },
    overwrite: version.rebase,
  }
}
