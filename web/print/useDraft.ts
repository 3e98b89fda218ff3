import type { Code } from '@flimbo/core/codes'
import { useCallback, useState } from 'react'
import { useStyles } from '../symbol/index.ts'
import { useKeys } from '../ui/index.ts'
import { changed, changesOf, draftOf, newDrafts, redone, undone, type Draft, type Drafts } from './draft.ts'

/** The draft of a piece's print, with the way back: Ctrl Z, and Ctrl Shift Z or Ctrl Y. */
export function useDraft(code: Code) {
  const { lookOf } = useStyles()
  const stored = draftOf(code, lookOf)
  /** Null until something is changed: what is stored shows meanwhile, whoever changes it. */
  const [drafts, setDrafts] = useState<Drafts | null>(null)
  const draft = drafts?.now ?? stored
  const change = useCallback(
    (set: Partial<Draft>, what: string) => {
      setDrafts((old) => changed(old ?? newDrafts(draftOf(code, lookOf)), set, what, Date.now()))
    },
    [code, lookOf],
  )
  const undo = () => {
    setDrafts((old) => old && undone(old))
  }
  const redo = () => {
    setDrafts((old) => old && redone(old))
  }
  useKeys({
    'ctrl+z': (event) => {
      if (event.shiftKey) redo()
      else undo()
    },
    'ctrl+y': redo,
  })
  const changes = changesOf(draft, stored, lookOf)
  return {
    draft,
    stored,
    changes,
    isChanged: drafts !== null && (changes.look || changes.piece),
    canUndo: (drafts?.past.length ?? 0) > 0,
    canRedo: (drafts?.future.length ?? 0) > 0,
    change,
    undo,
    redo,
    discard: () => {
      setDrafts(null)
    },
  }
}
export type DraftOf = ReturnType<typeof useDraft>
