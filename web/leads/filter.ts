import { isKnownDay } from '@flimbo/core/time'
import { LEAD_STATES, type LeadState } from '@flimbo/core/leads'

/** What a list of leads is narrowed to, as the address has it. */
export interface LeadView {
  readonly q: string
  readonly state: LeadState | undefined
  readonly held: 'no' | 'yes'
  readonly page: number | undefined
  readonly code: number | undefined
  readonly tag: string | undefined
  /** An answer to a question, by their keys, and what it is called. */
  readonly answer: { readonly question: string; readonly key: string; readonly label: string } | undefined
  /** Days of the campaign's zone. */
  readonly from: string | undefined
  readonly to: string | undefined
}

const numberOf = (text: string | null) => (text !== null && /^\d{1,9}$/.test(text) ? Number(text) : undefined)

const dayOf = (text: string | null) => (text !== null && isKnownDay(text) ? text : undefined)

function answerOf(address: URLSearchParams): LeadView['answer'] {
  const [question, key] = [address.get('question'), address.get('answer')]
  if (question === null || key === null || !/^[a-z0-9]{1,16}$/.test(question)) return undefined
  return { question, key, label: address.get('as') ?? key }
}

/** The address of the leads that gave an answer. */
export const answerHref = (
  narrowed: Readonly<Record<string, string>>,
  question: string,
  key: string,
  label: string,
): string => `?${new URLSearchParams({ ...narrowed, question, answer: key, as: label }).toString()}`

/** Reads an address; what it does not understand narrows nothing. */
export function viewOf(address: URLSearchParams): LeadView {
  return {
    q: address.get('q') ?? '',
    state: LEAD_STATES.find((state) => state === address.get('state')),
    held: address.get('held') === 'yes' ? 'yes' : 'no',
    page: numberOf(address.get('page')),
    code: numberOf(address.get('code')),
    tag: address.get('tag') ?? undefined,
    answer: answerOf(address),
    from: dayOf(address.get('from')),
    to: dayOf(address.get('to')),
  }
}

/** The query that a view stands for. */
export const queryOf = (
  campaignId: number,
  { q, state, held, page, code, tag, answer, from, to }: LeadView,
) => ({
  campaignId,
  held,
  ...(q.trim() === '' ? {} : { q: q.trim() }),
  ...(state === undefined ? {} : { state }),
  ...(page === undefined ? {} : { pageId: page }),
  ...(code === undefined ? {} : { codeId: code }),
  ...(tag === undefined ? {} : { tag }),
  ...(answer === undefined ? {} : { question: answer.question, answer: answer.key }),
  ...(from === undefined ? {} : { from }),
  ...(to === undefined ? {} : { to }),
})
