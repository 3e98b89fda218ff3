import type { Code } from '@flimbo/core/codes'
import type { Level, Look, Placement } from '@flimbo/core/symbol'
import equal from 'fast-deep-equal'

/** What the job sheet changes: of the piece, and of the house style it is printed in. */
export interface Draft {
  readonly styleId: number | null
  readonly sizeMm: number
  readonly viewingM: number | null
  readonly level: Level
  readonly look: Look
  /** Where it lies on a picture; null where it stands alone. */
  readonly placement: Placement | null
}

/** Drafts as they were and will be again: the way back and the way forth. */
export interface Drafts {
  readonly past: readonly Draft[]
  readonly now: Draft
  readonly future: readonly Draft[]
  /** What was changed last, and when: a slider that is dragged is one change. */
  readonly last: { readonly what: string; readonly at: number } | null
}

/** Changes of the same thing within this time are one. */
const ONE_CHANGE_MS = 900
const STEPS_MAX = 200

export const draftOf = (
  code: Pick<Code, 'styleId' | 'sizeMm' | 'viewingM' | 'level' | 'placement'>,
  lookOf: (styleId: number | null) => Look,
): Draft => ({
  styleId: code.styleId,
  sizeMm: code.sizeMm,
  viewingM: code.viewingM,
  level: code.level,
  look: lookOf(code.styleId),
  placement: code.placement,
})

export const newDrafts = (now: Draft): Drafts => ({ past: [], now, future: [], last: null })

/** A change; `what` names what is changed, `at` is the moment in milliseconds. */
export function changed(drafts: Drafts, set: Partial<Draft>, what: string, at: number): Drafts {
  const now = { ...drafts.now, ...set }
  if (equal(now, drafts.now)) return drafts
  const isSame = drafts.last?.what === what && at - drafts.last.at < ONE_CHANGE_MS
  const past = isSame ? drafts.past : [...drafts.past.slice(-STEPS_MAX), drafts.now]
  return { past, now, future: [], last: { what, at } }
}

export function undone({ past, now, future }: Drafts): Drafts {
  const before = past.at(-1)
  return before
    ? { past: past.slice(0, -1), now: before, future: [now, ...future], last: null }
    : { past, now, future, last: null }
}

export function redone({ past, now, future }: Drafts): Drafts {
  const [next, ...rest] = future
  return next
    ? { past: [...past, now], now: next, future: rest, last: null }
    : { past, now, future, last: null }
}

/** What of a draft is not stored. */
export function changesOf(draft: Draft, stored: Draft, lookOf: (styleId: number | null) => Look) {
  return {
    /** The look differs from that of the house style that was chosen. */
    look: !equal(draft.look, lookOf(draft.styleId)),
    piece:
      draft.styleId !== stored.styleId ||
      draft.sizeMm !== stored.sizeMm ||
      draft.viewingM !== stored.viewingM ||
      draft.level !== stored.level ||
      !equal(draft.placement, stored.placement),
  }
}
