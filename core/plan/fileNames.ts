import type { PatternFields } from '../tagging/index.ts'

/** What names of files may be made of, beside the fields of a piece: its number in the list. */
export type FileNameFields = PatternFields & { readonly n: string }

export const FILE_NAME_PATTERN_USUAL = '{name}-{link}'

const FIELDS = [
  'name',
  'place',
  'size',
  'medium',
  'source',
  'term',
  'reference',
  'key',
  'route',
  'campaign',
  'link',
  'n',
] as const satisfies readonly (keyof FileNameFields)[]
export const FILE_NAME_FIELDS: readonly string[] = FIELDS

/** What is wrong with a pattern for names of files, in a sentence; null where nothing is. */
export function fileNameFault(pattern: string): string | null {
  if (pattern.trim() === '') return 'Give a pattern, such as {name}-{link}.'
  for (const [, name = ''] of pattern.matchAll(/\{([^{}]*)\}/g)) {
    if (!FILE_NAME_FIELDS.includes(name))
      return `{${name}} is no field. Use ${FIELDS.map((field) => `{${field}}`).join(', ')}.`
  }
  if (/[{}]/.test(pattern.replace(/\{[^{}]*\}/g, '')))
    return 'A brace in the pattern has no partner. Write fields as {name}.'
  return null
}

/** A pattern with what a piece has for its fields. */
export function filledPattern(pattern: string, fields: FileNameFields): string {
  return pattern.replace(/\{([^{}]*)\}/g, (whole, name: string) =>
    FILE_NAME_FIELDS.includes(name) ? String(fields[name as keyof FileNameFields]) : whole,
  )
}

/** Names that systems keep for devices, whatever follows the dot. Common practice, no published source. */
const KEPT = /^(con|prn|aux|nul|com\d|lpt\d)$/i
const LENGTH_MAX = 120

/** A text that every common system takes as the name of a file: no separators, no signs they forbid, no dot or space at an end. */
export function plainFileName(text: string): string {
  // Signs that turn the direction of writing could make a name end otherwise than it reads.
  const plain = text
    .normalize('NFC')
    .replace(/\p{Cf}/gu, '')
    .replace(/[\u0000-\u001f\u007f<>:"/\\|?*]+/g, '-')
    .replace(/\s+/g, ' ')
    .slice(0, LENGTH_MAX)
    .replace(/^[. -]+|[. -]+$/g, '')
  if (plain === '') return 'symbol'
  return KEPT.test(plain) ? `${plain}-` : plain
}

/**
 * Names files by a pattern, each name once without regard to case: a name that comes again gets -2, -3
 * and so on.
 */
export function fileNamer(pattern: string, extension: string): (fields: FileNameFields) => string {
  const taken = new Set<string>()
  return (fields) => {
    const stem = plainFileName(filledPattern(pattern, fields))
    let name = `${stem}.${extension}`
    for (let i = 2; taken.has(name.toLowerCase()); i++) name = `${stem}-${String(i)}.${extension}`
    taken.add(name.toLowerCase())
    return name
  }
}
