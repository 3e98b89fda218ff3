/** What a pattern may be built from. Sizes are in millimetres. */
export interface PatternFields {
  readonly name: string
  readonly place: string
  readonly size: number
  readonly medium: string
  readonly source: string
  readonly term: string
  readonly reference: string
  readonly key: string
  readonly route: string
  readonly campaign: string
  readonly link: string
}

export const PATTERN_FIELDS = [
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
] as const satisfies readonly (keyof PatternFields)[]

/** What is wrong with a pattern such as `{place}-{size}`, in a sentence; null where nothing is. */
export function patternFault(pattern: string): string | null {
  for (const [, name = ''] of pattern.matchAll(/\{([^{}]*)\}/g)) {
    if (!(PATTERN_FIELDS as readonly string[]).includes(name))
      return `{${name}} is no field. Use ${PATTERN_FIELDS.map((field) => `{${field}}`).join(', ')}.`
  }
  return /[{}]/.test(pattern.replace(/\{[^{}]*\}/g, ''))
    ? 'A brace in the pattern has no partner. Write fields as {place}.'
    : null
}

/**
 * Fills a pattern from a piece's fields. Separators at the ends, and doubled ones where a field was
 * empty, are left out; everything else stays as the pattern has it.
 */
export function fillPattern(pattern: string, fields: PatternFields): string {
  return pattern
    .replace(/\{([^{}]*)\}/g, (whole, name: string) =>
      (PATTERN_FIELDS as readonly string[]).includes(name)
        ? String(fields[name as keyof PatternFields])
        : whole,
    )
    .replace(/([-_ ])[-_ ]+/g, '$1')
    .replace(/^[-_ ]+|[-_ ]+$/g, '')
}
