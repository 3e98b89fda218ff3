import { draftChange, isSameRoute, routesApi, type Rules, type WholeRoute } from '@flimbo/core/routing'
import { useEffect, useRef, useState } from 'react'
import { oneAtATime, sentenceOf, useChange, useVersion } from '../api/index.ts'

/** What is being prepared of a route: where everything else leads, and its rules. */
export interface Draft {
  readonly destination: string
  readonly rules: Rules
}

export interface DraftState {
  readonly draft: Draft
  /** Whether it differs from what is live. */
  readonly isPrepared: boolean
  /** Whether every edit has reached the server. */
  readonly isKept: boolean
  /** Why the last edit could not be kept yet; null where nothing is wrong. */
  readonly fault: string | null
  /** Somebody else saved meanwhile. */
  readonly isOvertaken: boolean
  /** The draft's number, to publish it by. */
  readonly version: number
  readonly edit: (change: (draft: Draft) => Draft) => void
  readonly undo: (() => void) | null
  /** Somebody else's draft in place of one's own. */
  readonly keepStored: () => void
  /** One's own draft in place of somebody else's. */
  readonly overwrite: () => void
}

const QUIET_MS = 500
const TYPING_MS = 1000
const UNREACHED =
  'The server could not be reached. What you did is still here and is tried again with your next edit.'
const versionOf = ({ draftVersion }: WholeRoute) => draftVersion
const partsOf = ({ destination, rules }: Draft): Draft => ({ destination, rules })

/** Keeps a draft: each edit goes to the server by itself, half a second after the last, and can be taken back. */
export function useDraft(route: WholeRoute): DraftState {
  const stored = partsOf(route.draft ?? route)
  const [local, setLocal] = useState<Draft | null>(null)
  const [past, setPast] = useState<readonly Draft[]>([])
  const [fault, setFault] = useState<string | null>(null)
  const edited = useRef(0)
  const { mutateAsync } = useChange(routesApi.saveDraft)
  const version = useVersion<WholeRoute>(route.draftVersion, local !== null, versionOf)
  const isOvertaken = version.newer !== null
  const draft = local ?? stored
  // One save at a time: the next starts from the number that the one before it was answered with.
  const save = useRef(
    oneAtATime(async (edit: Draft) => {
      try {
        const saved = await version.save((draftVersion) =>
          mutateAsync({ params: { id: route.id }, body: { draftVersion, ...edit } }),
        )
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
    const checked = draftChange.omit({ draftVersion: true }).safeParse(local)
    if (!checked.success) {
      setFault(checked.error.issues[0]?.message ?? 'Something is missing.')
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
    isPrepared: !isSameRoute(draft, route),
    isKept: local === null,
    edit(change) {
      // What is typed in one go is taken back in one go.
      const at = Date.now()
      if (at - edited.current > TYPING_MS) setPast((all) => [...all.slice(-49), draft])
      edited.current = at
      setLocal(change(draft))
      setFault(null)
    },
    undo:
      back === undefined
        ? null
        : () => {
            setPast((all) => all.slice(0, -1))
            setLocal(back)
          },
    keepStored() {
      version.rebase()
      setLocal(null)
      setPast([])
    },
    overwrite: version.rebase,
  }
}
