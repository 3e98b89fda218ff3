import { addressFiller } from '../routing/index.ts'

/**
 * What a tag may tell its collector of a visit: its own ID, where the visit goes, the piece's tags, and what a
 * scan's row keeps. Nothing of the visitor: no network address, no user agent, nothing that would know them again.
 */
export const VISIT_FIELDS = [
  'id',
  'address',
  'source',
  'medium',
  'campaign',
  'term',
  'content',
  'code',
  'country',
  'language',
  'device',
  'time',
  'visit',
] as const
export type VisitField = (typeof VISIT_FIELDS)[number]

/** Values of one visit; `time` is in UTC milliseconds, `visit` is another for each visit and the same when a hit is sent again. */
export type VisitValues = Readonly<Record<Exclude<VisitField, 'id'>, string>>

interface Defined {
  readonly value: string
  readonly address: string
  readonly body: string
}

const fillFields = addressFiller(VISIT_FIELDS)
const FIELD = new RegExp(`\\{(${VISIT_FIELDS.join('|')})\\}`, 'gi')

/** The address of a tag's hit for one visit, every value escaped by where it stands. @throws TypeError where the stored address is none */
export function hitAddress(
  { value, address }: Pick<Defined, 'value' | 'address'>,
  visit: VisitValues,
): string {
  return fillFields(new URL(address).href, { ...visit, id: value })
}

/** The body of a tag's hit for one visit: its JSON with the placeholders in its texts filled; null where it has none. */
export function hitBody({ value, body }: Pick<Defined, 'value' | 'body'>, visit: VisitValues): string | null {
  if (body.trim() === '') return null
  return JSON.stringify(filled(JSON.parse(body), { ...visit, id: value }))
}

/** Only texts are filled, as texts: no value can change what the JSON is made of. A text of "{time}" alone becomes a number. */
function filled(json: unknown, values: Readonly<Record<VisitField, string>>): unknown {
  if (typeof json === 'string') {
    if (json === '{time}') return Number(values.time)
    return json.replace(FIELD, (_all, name: string) => values[name.toLowerCase() as VisitField])
  }
  if (Array.isArray(json)) return json.map((each) => filled(each, values))
  if (typeof json === 'object' && json !== null)
    return Object.fromEntries(Object.entries(json).map(([name, each]) => [name, filled(each, values)]))
  return json
}

/** Why a text can be no body, in a sentence; null where it can, or is empty. */
export function bodyFault(body: string): string | null {
  if (body.trim() === '') return null
  try {
    const json: unknown = JSON.parse(body)
    return typeof json === 'object' && json !== null
      ? null
      : 'Write the body as a JSON object, such as {"id": "{id}", "source": "{source}"}.'
  } catch {
    return 'The body is no JSON. Write it such as {"id": "{id}", "source": "{source}"}, with every placeholder inside quotation marks.'
  }
}
