import { isKnownDay } from '@flimbo/core/time'
import type { NumbersBy } from '@flimbo/core/leads'

/** What leads are narrowed to by the rows of their numbers. */
export const WHERE_NAMES = ['country', 'region', 'city', 'device', 'medium'] as const
export type WhereName = (typeof WHERE_NAMES)[number]

/** What a list of leads is narrowed to, as the address has it. */
export interface LeadView {
  readonly q: string
  /** The key of one of the workspace's states. */
  readonly state: string | undefined
  readonly held: 'no' | 'yes'
  /** Where leads are of all campaigns, one of them. */
  readonly campaign: number | undefined
  readonly page: number | undefined
  readonly code: number | undefined
  readonly tag: string | undefined
  /** An answer to a question, by their keys, and what it is called. */
  readonly answer: { readonly question: string; readonly key: string; readonly label: string } | undefined
  /** What else they are narrowed to, by what rows of numbers are of. */
  readonly where: Readonly<Partial<Record<WhereName, string>>>
  /** Days of the campaign's zone. */
  readonly from: string | undefined
  readonly to: string | undefined
}

/** Parts of the address of a list of leads, and what each becomes; null where it goes. */
export type NarrowedTo = Readonly<Record<string, string | null>>
export type Narrow = (values: NarrowedTo) => void

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
    state: /^[a-z0-9]{1,16}$/.exec(address.get('state') ?? '')?.[0],
    held: address.get('held') === 'yes' ? 'yes' : 'no',
    campaign: numberOf(address.get('campaign')),
    page: numberOf(address.get('page')),
    code: numberOf(address.get('code')),
    tag: address.get('tag') ?? undefined,
    answer: answerOf(address),
    where: Object.fromEntries(
      WHERE_NAMES.flatMap((name) => {
        const value = address.get(name)
        return value === null ? [] : [[name, value]]
      }),
    ),
    from: dayOf(address.get('from')),
    to: dayOf(address.get('to')),
  }
}

const campaignOf = (campaignId: number | undefined) => (campaignId === undefined ? {} : { campaignId })

/** What the leads of a row of numbers are narrowed to. */
export function rowOf(by: NumbersBy | 'medium', key: string): Readonly<Record<string, string>> {
  if (by === 'piece') return { code: key }
  // Figures know no country of a city that is not known.
  if (by === 'city' && key === '') return { city: '' }
  if (by === 'city') {
    const [country = '', region = '', city = ''] = key.split('\t')
    return { country, region, city }
  }
  // A month of the campaign's zone, from its first day to its last.
  return by === 'month' ? { from: `${key}-01`, to: lastOfMonth(key) } : { [by]: key }
}

const lastOfMonth = (month: string) =>
  new Date(Date.UTC(Number(month.slice(0, 4)), Number(month.slice(5, 7)), 0)).toISOString().slice(0, 10)

/** The query that a view stands for. */
export const queryOf = (
  campaignId: number | undefined,
  { q, state, held, page, code, tag, answer, where, campaign, from, to }: LeadView,
) => ({
  ...campaignOf(campaignId ?? campaign),
  held,
  ...(q.trim() === '' ? {} : { q: q.trim() }),
  ...(state === undefined ? {} : { state }),
  ...(page === undefined ? {} : { pageId: page }),
  ...(code === undefined ? {} : { codeId: code }),
  ...(tag === undefined ? {} : { tag }),
  ...(answer === undefined ? {} : { question: answer.question, answer: answer.key }),
  ...where,
  ...(from === undefined ? {} : { from }),
  ...(to === undefined ? {} : { to }),
})
