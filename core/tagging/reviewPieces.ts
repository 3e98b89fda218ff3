import { channelOf, type ChannelRule } from './channels.ts'
import type { Review } from './contract.ts'
import { FINDING_KINDS, lint, type Finding, type TagContext, type TaggedPiece } from './lint.ts'

/** What the linter found in all pieces of a campaign. */
export interface ReviewedPieces {
  readonly review: Review
  readonly byFinding: ReadonlyMap<string, readonly number[]>
  /** By the name of the channel their visits fall in; empty for none. */
  readonly byChannel: ReadonlyMap<string, readonly number[]>
  /** Values that make findings go away, by kind and field, such as `missing medium`. */
  readonly fixes: ReadonlyMap<string, readonly (readonly [id: number, value: string])[]>
}

function add<T>(to: Map<string, T[]>, key: string, value: T): void {
  const list = to.get(key)
  if (list) list.push(value)
  else to.set(key, [value])
}

/** Looks all pieces of a campaign over: what is found how often, in which pieces, and what would mend it. */
export function reviewPieces(
  pieces: readonly (TaggedPiece & { readonly id: number })[],
  context: TagContext,
  channels: readonly ChannelRule[],
): ReviewedPieces {
  const kinds = new Map<string, Review['kinds'][number]>()
  const byFinding = new Map<string, number[]>()
  const byChannel = new Map<string, number[]>()
  const fixes = new Map<string, [number, string][]>()
  for (const piece of pieces) {
    const met = new Set<string>()
    for (const { kind, field, fix, sentence } of lint(piece, context)) {
      const key = `${kind} ${field}`
      const counted = kinds.get(key) ?? { kind, field, pieces: 0, fixable: 0, example: sentence }
      kinds.set(key, counted)
      counted.pieces++
      if (fix !== null) {
        counted.fixable++
        add(fixes, key, [piece.id, fix])
      }
      if (!met.has(kind)) add(byFinding, kind, piece.id)
      met.add(kind)
    }
    add(byChannel, channelOf(piece, channels), piece.id)
  }
  const weight = ({ kind }: { kind: Finding['kind'] }) => FINDING_KINDS.indexOf(kind)
  const review = {
    pieces: pieces.length,
    kinds: [...kinds.values()].sort((a, b) => weight(a) - weight(b) || b.pieces - a.pieces),
    unassigned: byChannel.get('')?.length ?? 0,
  }
  return { review, byFinding, byChannel, fixes }
}
