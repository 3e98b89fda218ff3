import { codesApi, type CodeCellChange, type CodeFilter, type CodeSet } from '@flimbo/core/codes'
import type { FindingKind } from '@flimbo/core/tagging'
import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useRef, useState } from 'react'
import { ApiProblem, call } from '../api/index.ts'
import { quantity } from '@flimbo/core/formats'

type Matching =
  { matching: CodeFilter; set: CodeSet } | { matching: CodeFilter; fix: { kind: FindingKind; field: string } }
type Order = { changes: CodeCellChange[] } | Matching

/** What came of the last edit, for a line of text beside the grid. */
export interface Outcome {
  readonly kind: 'done' | 'trouble'
  readonly sentence: string
  readonly details: readonly string[]
}

const DETAILS_MAX = 50

/** Edits of the plan: each is saved at once, and can be taken back and made again. */
export function useEdits() {
  const queries = useQueryClient()
  const past = useRef<CodeCellChange[][]>([])
  const future = useRef<CodeCellChange[][]>([])
  const [outcome, setOutcome] = useState<Outcome | null>(null)
  const [steps, setSteps] = useState({ past: 0, future: 0 })
  const fresh = useRef<Promise<void>>(Promise.resolve())
  const turn = useRef<Promise<unknown>>(Promise.resolve())

  /** Saves one after the other: two quick edits of a cell must arrive in their order. */
  const send = useCallback(
    (order: Order, onto: typeof past, verb: string, unread: readonly string[] = []): Promise<boolean> => {
      const work = async (): Promise<Outcome> => {
        try {
          const { changed, refused, undo } = await call(codesApi.changeMany, { body: order })
          // Everything shown is read anew; whoever waits for the cell waits for the rows alone.
          void queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== codesApi.list.path })
          fresh.current = queries.invalidateQueries({ queryKey: [codesApi.list.path] })
          if (undo.length > 0) onto.current.push(undo)
          const details = [...unread, ...refused.map(({ name, sentence }) => `${name}: ${sentence}`)]
          setSteps({ past: past.current.length, future: future.current.length })
          return details.length === 0
            ? { kind: 'done', sentence: `${quantity(changed, 'piece')} ${verb}.`, details: [] }
            : {
                kind: 'trouble',
                sentence: `${quantity(changed, 'piece')} ${verb}; ${quantity(details.length, 'cell was', 'cells were')} not taken.`,
                details: details.slice(0, DETAILS_MAX),
              }
        } catch (error) {
          return {
            kind: 'trouble',
            sentence:
              error instanceof ApiProblem
                ? error.problem.detail
                : 'The change could not be sent. Nothing was saved.',
            details: [],
          }
        }
      }
      const result = turn.current.then(work)
      turn.current = result
      return result.then(async (came) => {
        await fresh.current
        setOutcome(came)
        return came.kind === 'done'
      })
    },
    [queries],
  )

  const edit = useCallback(
    (order: Order, unread?: readonly string[]) => {
      future.current = []
      return send(order, past, 'changed', unread)
    },
    [send],
  )
  const back = useCallback(
    (from: typeof past, to: typeof past, verb: string) => {
      const undo = from.current.pop()
      // Versions are left out: whoever takes back means what is there now.
      if (undo) void send({ changes: undo.map(({ id, set }) => ({ id, set })) }, to, verb)
      else
        setOutcome({
          kind: 'done',
          sentence: `There is nothing to ${from === past ? 'undo' : 'redo'}.`,
          details: [],
        })
    },
    [send],
  )

  return {
    outcome,
    say: setOutcome,
    edit,
    undo: useCallback(() => {
      back(past, future, 'changed back')
    }, [back]),
    redo: useCallback(() => {
      back(future, past, 'changed again')
    }, [back]),
    canUndo: steps.past > 0,
    canRedo: steps.future > 0,
  }
}
export type Edits = ReturnType<typeof useEdits>
