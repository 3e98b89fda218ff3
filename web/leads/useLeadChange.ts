import { useQueryClient } from '@tanstack/react-query'
import { leadsApi, type LeadChange, type LeadSummary } from '@flimbo/core/leads'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'

type Were = readonly Pick<LeadSummary, 'id' | 'state' | 'assignedTo' | 'tags' | 'personMark'>[]

/** What was done last, in words, and how it is taken back. */
export interface Done {
  readonly words: string
  readonly were: Were
  readonly set: LeadChange
}

/** What some leads were, put together by what is set again: one change for all that were alike. */
export function changesBack(were: Were, set: LeadChange): { ids: number[]; set: LeadChange }[] {
  const groups = new Map<string, { ids: number[]; set: LeadChange }>()
  for (const { id, state, assignedTo, tags, personMark } of were) {
    const back: LeadChange = {
      ...(set.state === undefined ? {} : { state }),
      ...(set.assignedTo === undefined ? {} : { assignedTo }),
      ...(set.tags === undefined ? {} : { tags }),
      ...(set.personMark === undefined ? {} : { personMark }),
    }
    const key = JSON.stringify(back)
    const group = groups.get(key) ?? { ids: [], set: back }
    group.ids.push(id)
    groups.set(key, group)
  }
  return [...groups.values()]
}

/** Changes leads, many at once, and takes the last change back. */
export function useLeadChange() {
  const queries = useQueryClient()
  const change = useChange(leadsApi.change)
  const [done, setDone] = useState<Done | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const again = () =>
    queries.invalidateQueries({ predicate: ({ queryKey }) => String(queryKey[0]).startsWith('/leads') })

  async function apply(ids: readonly number[], set: LeadChange, words: string): Promise<void> {
    setFault(null)
    try {
      const { were } = await change.mutateAsync({ body: { ids: [...ids], set } })
      setDone({ words, were, set })
      await again()
    } catch (error) {
      setFault(sentenceOf(error, 'Nothing was changed. Try again.'))
    }
  }
  async function undo(): Promise<void> {
    if (!done) return
    setFault(null)
    try {
      for (const body of changesBack(done.were, done.set)) await change.mutateAsync({ body })
      setDone(null)
      await again()
    } catch (error) {
      setFault(sentenceOf(error, 'It was not changed back. Try again.'))
    }
  }
  return {
    apply: (ids: readonly number[], set: LeadChange, words: string) => {
      void apply(ids, set, words)
    },
    undo: () => {
      void undo()
    },
    /** What can be taken back; a lead that was taken from the held ones is not held again. */
    done: done?.set.isHeld === false ? null : done,
    fault,
    isPending: change.isPending,
  }
}
export type LeadChanges = ReturnType<typeof useLeadChange>
