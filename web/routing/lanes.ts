import { EVERY_SCAN } from '@flimbo/core/conditions'
import type { Lane } from '@flimbo/core/routing'
import { freshKey } from '../ui/index.ts'
import type { DraftState } from './useDraft.ts'

/** A list of lanes being edited. */
export interface Lanes {
  readonly find: (id: string) => Lane | undefined
  /** A new lane at the end, or a copy of one. @returns its key */
  readonly add: (copied?: Lane) => string
  readonly change: (lane: Lane) => void
  readonly remove: (id: string) => void
}

/** The lanes of a list, and what can be done to it; `begin` says what a new lane is. */
export function editLanes(
  lanes: readonly Lane[],
  set: (change: (lanes: readonly Lane[]) => Lane[]) => void,
  begin: Omit<Lane, 'id'>,
): Lanes {
  return {
    find: (id) => lanes.find((lane) => lane.id === id),
    add(copied) {
      const id = freshKey(
        'l',
        lanes.map((lane) => lane.id),
      )
      set((all) => [...all, copied ? copyOf(copied, id) : { ...begin, id }])
      return id
    },
    change(next) {
      set((all) => all.map((each) => (each.id === next.id ? next : each)))
    },
    remove(id) {
      set((all) => all.filter((each) => each.id !== id))
    },
  }
}

/** A route's own lanes; a new one takes every scan and leads where the route leads, until somebody says otherwise. */
export function lanesOf({ draft, edit }: Pick<DraftState, 'draft' | 'edit'>): Lanes {
  return editLanes(
    draft.rules.lanes,
    (change) => {
      edit((was) => ({ ...was, rules: { ...was.rules, lanes: change(was.rules.lanes) } }))
    },
    {
      name: '',
      condition: EVERY_SCAN,
      outcome: { kind: 'address', address: draft.destination },
      resting: false,
    },
  )
}

const copyOf = (lane: Lane, id: string): Lane => ({
  ...lane,
  id,
  name: lane.name === '' ? '' : `${lane.name} (copy)`,
})
