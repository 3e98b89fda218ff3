import { leavesOf, type Leaf } from '@flimbo/core/conditions'
import type { Lane } from '@flimbo/core/routing'

type Near = Extract<Leaf, { kind: 'near' }>
/** A circle that a lane draws, and the lane's place in the plan. */
export interface Circle extends Near {
  readonly place: number
}

/** The circles that the conditions of some lanes draw. */
export function circlesOf(lanes: readonly Lane[]): Circle[] {
  return lanes.flatMap(({ condition }, i) =>
    leavesOf(condition)
      .filter((leaf): leaf is Near => leaf.kind === 'near')
      .map((leaf) => ({ ...leaf, place: i + 1 })),
  )
}
