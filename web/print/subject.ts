import type { Code } from '@flimbo/core/codes'
import type { StaticCode } from '@flimbo/core/staticCodes'
import type { ReleaseMark } from '@flimbo/core/symbol'
import type { Contacts } from './useContacts.ts'

/** What a job sheet is of: a code, or a static code. */
export interface Subject {
  readonly kind: 'code' | 'static'
  readonly id: number
  readonly campaignId: number
  /** The newest release; null where it never was released. */
  readonly release: ReleaseMark | null
}

export const subjectOf = (
  kind: Subject['kind'],
  { id, campaignId, print }: Pick<Code | StaticCode, 'id' | 'campaignId' | 'print'>,
): Subject => ({ kind, id, campaignId, release: print.release })

/** What is made of them: this one, or all that the contact sheet shows. */
export type Scope = 'one' | 'all'

/** The pieces of an order, as endpoints take them. */
export function piecesOf(
  { kind, id, campaignId }: Subject,
  scope: Scope,
  contacts: Pick<Contacts, 'filter' | 'statics'>,
) {
  if (scope === 'all') return { filter: contacts.filter, staticIds: contacts.statics.map((each) => each.id) }
  const filter = { campaignId }
  return kind === 'static' ? { filter, ids: [], staticIds: [id] } : { filter, ids: [id], staticIds: [] }
}
