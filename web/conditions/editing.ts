import type { Leaf, LeafKind } from '@flimbo/core/conditions'

/** What the editor of one kind of condition is given. */
export interface Editing<Kind extends LeafKind> {
  readonly leaf: Extract<Leaf, { kind: Kind }>
  readonly change: (leaf: Extract<Leaf, { kind: Kind }>) => void
}
