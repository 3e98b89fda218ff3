import { EVERY_SCAN } from '@flimbo/core/conditions'
import { laneSetsApi, type Lane, type LaneSet } from '@flimbo/core/routing'
import { useState } from 'react'
import { sentenceOf, useChange, useVersion } from '../api/index.ts'
import { swap } from '../ui/index.ts'
import { editLanes, type Lanes } from './lanes.ts'

interface Draft {
  readonly name: string
  readonly lanes: readonly Lane[]
}

/** What a new shared lane is: a message that takes no scan until it is turned on. */
const NEW_LANE: Omit<Lane, 'id'> = {
  name: '',
  condition: EVERY_SCAN,
  outcome: { kind: 'message', title: 'No boats today', text: '' },
  resting: true,
}

/** A set of shared lanes while it is edited: one Save for all routes that use it. */
export function useLaneSetDraft(set: LaneSet) {
  const [local, setLocal] = useState<Draft | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const version = useVersion<LaneSet>(set.version, local !== null)
  const change = useChange(laneSetsApi.change)
  const { name, lanes } = local ?? set
  const edit = (part: Partial<Draft>) => {
    const next = { name, lanes, ...part }
    const isBack = next.name === set.name && JSON.stringify(next.lanes) === JSON.stringify(set.lanes)
    setLocal(isBack ? null : next)
  }
  const reset = () => {
    setLocal(null)
    setTrouble(null)
    version.rebase()
  }
  const save = async () => {
    setTrouble(null)
    try {
      const saved = await version.save((from) =>
        change.mutateAsync({ params: { id: set.id }, body: { version: from, name, lanes: [...lanes] } }),
      )
      if (saved !== null) setLocal(null)
    } catch (error) {
      setTrouble(sentenceOf(error, 'The server could not be reached. What you did is still here.'))
    }
  }
  const own: Lanes = editLanes(
    lanes,
    (next) => {
      edit({ lanes: next(lanes) })
    },
    NEW_LANE,
  )
  return {
    name,
    lanes,
    own,
    trouble,
    isChanged: local !== null,
    isSaving: change.isPending,
    isOvertaken: version.newer !== null,
    rename: (next: string) => {
      edit({ name: next })
    },
    move: (from: number, to: number) => {
      if (to >= 0 && to < lanes.length) edit({ lanes: swap(lanes, from, to) })
    },
    reset,
    save,
    overwrite: () => {
      version.rebase()
      return save()
    },
  }
}
export type LaneSetDraft = ReturnType<typeof useLaneSetDraft>
