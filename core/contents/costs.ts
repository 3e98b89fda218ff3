import { density, type Level } from '../symbol/index.ts'
import { bytesOf } from './bytes.ts'
import type { Content } from './content.ts'
import { writeContent } from './write.ts'

/** What a symbol of a content takes, and what would be saved without one of its fields. */
export interface ContentCosts {
  /** Bytes of the text in UTF-8. */
  readonly bytes: number
  /** Modules a side; null where no symbol holds it at this level. */
  readonly side: number | null
  readonly fields: readonly FieldCost[]
}

export interface FieldCost {
  readonly field: string
  readonly bytes: number
  /** Modules a side that the symbol would be smaller by; null where it fits no symbol with the field. */
  readonly modules: number | null
}

/** Modules a side of a text's symbol, which do not hang on how large it is printed. */
const sideOf = (text: string, level: Level) => density(text, level, 1)?.side ?? null

/** What each field that may be left out costs in the symbol, the dearest first. */
export function contentCosts(content: Content, level: Level): ContentCosts {
  const whole = writeContent(content)
  const side = sideOf(whole, level)
  const fields = optionalFields(content).map(([field, without]) => {
    const text = writeContent(without)
    const smaller = sideOf(text, level)
    return {
      field,
      bytes: bytesOf(whole) - bytesOf(text),
      modules: side === null || smaller === null ? null : side - smaller,
    }
  })
  return { bytes: bytesOf(whole), side, fields: fields.sort((a, b) => b.bytes - a.bytes) }
}

/** Fields without which a content of some kind is nothing. */
const NEEDED: Readonly<Partial<Record<Content['kind'], readonly string[]>>> = {
  email: ['to'],
  sms: ['number'],
  event: ['title'],
  transfer: ['name', 'iban'],
  payment: ['scheme', 'address'],
}
/** Kinds whose fields may be left out one by one. */
const WITH_OPTIONAL: readonly Content['kind'][] = [
  'sms',
  'email',
  'place',
  'contact',
  'event',
  'transfer',
  'payment',
]
/** Texts that say how something is written, and nothing by themselves. */
const MODES = ['kind', 'version', 'start', 'end', 'zone', 'security']

function optionalFields(content: Content): [field: string, without: Content][] {
  if (!WITH_OPTIONAL.includes(content.kind)) return []
  const needed = NEEDED[content.kind] ?? []
  const filled = Object.entries(content).filter(
    ([name, value]) =>
      typeof value === 'string' && value !== '' && !MODES.includes(name) && !needed.includes(name),
  )
  // The same kind with one text empty is of that kind still.
  const texts = filled.map(([name]): [string, Content] => [name, { ...content, [name]: '' }])
  return content.kind === 'transfer' && content.cents !== null
    ? [...texts, ['cents', { ...content, cents: null }]]
    : texts
}
