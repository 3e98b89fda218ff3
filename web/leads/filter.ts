import { LEAD_STATES, type LeadState } from '@flimbo/core/leads'

/** What a list of leads is narrowed to, as the address has it. */
export interface LeadView {
  readonly q: string
  readonly state: LeadState | undefined
  readonly held: 'no' | 'yes'
  readonly page: number | undefined
  readonly code: number | undefined
  readonly tag: string | undefined
}

const numberOf = (text: string | null) => (text !== null && /^\d{1,9}$/.test(text) ? Number(text) : undefined)

/** Reads an address; what it does not understand narrows nothing. */
export function viewOf(address: URLSearchParams): LeadView {
  return {
    q: address.get('q') ?? '',
    state: LEAD_STATES.find((state) => state === address.get('state')),
    held: address.get('held') === 'yes' ? 'yes' : 'no',
    page: numberOf(address.get('page')),
    code: numberOf(address.get('code')),
    tag: address.get('tag') ?? undefined,
  }
}

/** The query that a view stands for. */
export const queryOf = (campaignId: number, { q, state, held, page, code, tag }: LeadView) => ({
  campaignId,
  held,
  ...(q.trim() === '' ? {} : { q: q.trim() }),
  ...(state === undefined ? {} : { state }),
  ...(page === undefined ? {} : { pageId: page }),
  ...(code === undefined ? {} : { codeId: code }),
  ...(tag === undefined ? {} : { tag }),
})
