import fc from 'fast-check'
import { ALWAYS } from '../forms/index.ts'
import { EVERY_SCAN } from '../conditions/index.ts'
import { newPart, PART_FIELDS, PART_KINDS, type PageContent, type Part } from '../pages/index.ts'
import { type Field, type Fields } from '../fields/index.ts'

/** Languages of pages in property tests: of two scripts and both directions. */
export const PAGE_LANGUAGES = ['de', 'en', 'ar'] as const

/** Text that wants to be markup, and plain text. */
export const nastyText: fc.Arbitrary<string> = fc
  .array(
    fc.oneof(
      fc.string({ maxLength: 6 }),
      fc.constantFrom(
        '<script>',
        '</p>',
        '<img src=x onerror=a>',
        '"',
        "' onclick='",
        '-->',
        '&lt;',
        '</style>',
        '\u2028',
        'é',
      ),
    ),
    { maxLength: 4 },
  )
  .map((parts) => parts.join('').replace(/[\p{Cc}]/gu, ''))

const each = <T>(value: fc.Arbitrary<T>) =>
  fc.record(Object.fromEntries(PAGE_LANGUAGES.map((tag) => [tag, value])), { requiredKeys: [] })

const nastyAddress = nastyText.map((tail) => `https://saltmarsh.example/${tail}`)
const run = fc.record(
  {
    text: nastyText.filter((text) => text !== ''),
    bold: fc.boolean(),
    italic: fc.boolean(),
    link: nastyAddress,
  },
  { requiredKeys: ['text'] },
)
const richValue = fc.array(
  fc.oneof(
    fc.record({ kind: fc.constant('paragraph' as const), runs: fc.array(run, { maxLength: 3 }) }),
    fc.record({
      kind: fc.constant('list' as const),
      isNumbered: fc.boolean(),
      items: fc.array(fc.array(run, { maxLength: 2 }), { minLength: 1, maxLength: 2 }),
    }),
  ),
  { maxLength: 3 },
)
const DAY = [{ from: '09:00', upTo: '18:00' }]

function valueOf(field: Field): fc.Arbitrary<unknown> {
  switch (field.type) {
    case 'words':
      return each(nastyText.map((text) => text.slice(0, field.max)))
    case 'rich':
      return each(richValue)
    case 'file':
      return each(fc.constantFrom('', 'AAAAAAAAAAAAAAAAAAAAA'))
    case 'text':
      return nastyText.map((text) => text.slice(0, field.max))
    case 'address':
      return fc.oneof(fc.constant(''), nastyAddress, fc.constant('tel:+494931'))
    case 'choice':
      return fc.constantFrom(...field.choices.map(([value]) => value))
    case 'toggle':
      return fc.boolean()
    case 'moment':
      return fc.constantFrom('', '2026-07-03T09:00', '2027-01-01T00:00')
    case 'hours':
      return fc.constant({ week: [DAY, DAY, [], DAY, DAY, [], []], except: [] })
    case 'point':
      return fc.constantFrom(null, { latitude: 53.5, longitude: 7.2 })
    case 'number':
      return fc.constant(null)
    case 'page':
      return fc.constantFrom(null, 7)
    case 'day':
      return fc.constantFrom('', '2026-07-03')
    case 'key':
      return fc.constant('k')
    case 'kinds':
      return fc
        .array(anyRow(field), { maxLength: 3 })
        .map((rows) => rows.map((row, i) => ({ ...row, id: `q${String(i)}` })))
    case 'list':
      return fc.array(recordOf(field.of), { maxLength: Math.min(2, field.max) })
  }
}
function anyRow({ kinds }: Extract<Field, { type: 'kinds' }>) {
  return fc
    .constantFrom(...Object.keys(kinds))
    .chain((kind) =>
      recordOf(kinds[kind] ?? {}).map((values) => ({ ...values, kind, id: 'q', branch: ALWAYS })),
    )
}
function recordOf(fields: Fields): fc.Arbitrary<Record<string, unknown>> {
  return fc.record(
    Object.fromEntries(
      Object.entries(fields as Readonly<Record<string, Field>>).map(([name, field]) => [
        name,
        valueOf(field),
      ]),
    ),
  )
}

/** A part of any kind, filled with whatever somebody might type. */
export const anyPart: fc.Arbitrary<Part> = fc
  .constantFrom(...PART_KINDS)
  .chain((kind) =>
    recordOf(PART_FIELDS[kind]).map((values) => ({ ...newPart(kind, 'p'), ...values }) as Part),
  )

/** A page of any parts. */
export const anyPage: fc.Arbitrary<PageContent> = fc
  .record({
    parts: fc.array(anyPart, { maxLength: 6 }),
    title: each(nastyText),
    description: each(nastyText),
  })
  .map(({ parts, title, description }): PageContent => ({
    title: title as PageContent['title'],
    description: description as PageContent['description'],
    languages: [...PAGE_LANGUAGES],
    zone: 'Europe/Berlin',
    picture: {},
    isFileItself: false,
    styleId: null,
    parts: parts.map((part, i): Part => ({ ...part, id: `p${String(i)}`, condition: EVERY_SCAN })),
  }))
