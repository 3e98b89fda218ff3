import type { Endpoint } from '@flimbo/core/api'
import { useEffect, useState } from 'react'
import type { z } from 'zod'
import { fieldFaults } from '@flimbo/core/api'
import { ApiProblem, newerOf, useAnswer, useChange } from '../api/index.ts'

interface Versioned<T> {
  value: T
  version: number
}

/** One part of the settings with one clear Save: what is typed, what is wrong with it, and what somebody else saved meanwhile. */
export function useSetting<T>(read: Endpoint, write: Endpoint, schema: z.ZodType<T>) {
  // Both endpoints answer a value with its version; the caller's schema says of what kind.
  const answer = useAnswer(read, {} as never)
  const stored = answer.data as Versioned<T> | undefined
  const change = useChange(write)
  const [draft, setDraft] = useState<Versioned<T> | null>(null)
  const [faults, setFaults] = useState<readonly { path: string; message: string }[]>([])
  const [trouble, setTrouble] = useState<string | null>(null)
  const isDirty =
    draft !== null && stored !== undefined && JSON.stringify(draft.value) !== JSON.stringify(stored.value)
  useEffect(() => {
    if (!isDirty && stored) setDraft(stored)
  }, [stored, isDirty])

  return {
    answer,
    value: draft?.value,
    isDirty,
    saving: change.isPending,
    trouble,
    faultOf: (path: string) => faults.find((each) => each.path === path)?.message,
    faults,
    set: (value: T) => {
      if (draft) setDraft({ ...draft, value })
    },
    reset: () => {
      setDraft(stored ?? null)
      setFaults([])
      setTrouble(null)
    },
    async save(): Promise<void> {
      if (!draft) return
      setTrouble(null)
      const checked = schema.safeParse(draft.value)
      setFaults(checked.success ? [] : fieldFaults(checked.error))
      if (!checked.success) return
      try {
        setDraft(
          (await change.mutateAsync({
            body: { value: checked.data, version: draft.version },
          } as never)) as Versioned<T>,
        )
      } catch (error) {
        const newer = newerOf<Versioned<T>>(error)
        if (newer) {
          setDraft({ ...draft, version: newer.current.version })
          setTrouble(
            'Someone saved these settings after you opened them. Nothing was overwritten. Save again to put yours in their place, or undo to see theirs.',
          )
        } else
          setTrouble(
            error instanceof ApiProblem
              ? error.problem.detail
              : 'The settings could not be sent. Nothing was saved.',
          )
      }
    },
  }
}
