import type { Endpoint } from '@flimbo/core/api'
import { useState } from 'react'
import type { z } from 'zod'
import { fieldFaults } from '@flimbo/core/api'
import { sentenceOf, useAnswer, useChange, useVersion } from '../api/index.ts'

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
  const [local, setLocal] = useState<T | null>(null)
  const [faults, setFaults] = useState<readonly { path: string; message: string }[]>([])
  const [trouble, setTrouble] = useState<string | null>(null)
  const version = useVersion<Versioned<T>>(stored?.version ?? 0, local !== null)
  const value = local ?? stored?.value
  const reset = () => {
    setLocal(null)
    setFaults([])
    setTrouble(null)
    version.rebase()
  }

  async function save(): Promise<void> {
    if (local === null) return
    setTrouble(null)
    const checked = schema.safeParse(local)
    setFaults(checked.success ? [] : fieldFaults(checked.error))
    if (!checked.success) return
    try {
      const saved = await version.save(
        (from) =>
          change.mutateAsync({ body: { value: checked.data, version: from } } as never) as Promise<
            Versioned<T>
          >,
      )
      if (saved !== null) setLocal((now) => (now === local ? null : now))
    } catch (error) {
      setTrouble(sentenceOf(error, 'The settings could not be sent. Nothing was saved.'))
    }
  }

  return {
    answer,
    value,
    isDirty: local !== null,
    isOvertaken: version.newer !== null,
    saving: change.isPending,
    trouble,
    faultOf: (path: string) => faults.find((each) => each.path === path)?.message,
    faults,
    /** What is typed back to what is stored is no edit. */
    set: (next: T) => {
      setLocal(JSON.stringify(next) === JSON.stringify(stored?.value) ? null : next)
    },
    reset,
    save,
    overwrite: () => {
      version.rebase()
      return save()
    },
  }
}
