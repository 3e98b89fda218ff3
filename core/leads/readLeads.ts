import {
  OTHER,
  otherName,
  questionTitle,
  rankName,
  valueName,
  type Asked,
  type Question,
} from '../forms/index.ts'
import { said, type Reading } from '../fields/index.ts'
import { readTable } from '../plan/index.ts'
import { readDay } from '../time/index.ts'
import { LANGUAGES } from '../words/index.ts'

/** Answers as a form would be sent with them, by the names of its fields. */
export type SentRow = readonly (readonly [name: string, values: readonly string[]])[]

/** A line of a file as what somebody answered. */
export interface LeadLine {
  /** Its number in the file, the headings being the first. */
  readonly line: number
  /** When it was answered, as it stands there; empty where it does not. */
  readonly at: string
  readonly sent: SentRow
}

/** A file of answers, read by the headings of its columns. */
export interface LeadTable {
  /** Headings that stand for questions, and those that stand for nothing. */
  readonly taken: readonly string[]
  readonly left: readonly string[]
  readonly lines: readonly LeadLine[]
}

const plain = (text: string) => text.trim().toLowerCase().replace(/\s+/g, ' ')

/** Headings under which a question is found: its short name, and its words in each language. */
function headingsOf(question: Asked, reading: Reading): string[] {
  const titles = reading.languages.map((language) =>
    questionTitle(question, (value) => said({ ...reading, language }, value).text),
  )
  const labels = 'label' in question ? Object.values(question.label) : []
  return [...titles, ...labels, question.name].map(plain).filter((each) => each !== '')
}

const AT_HEADINGS = ['time_utc', 'time', 'date']
const YES = new Set([
  'yes',
  'true',
  '1',
  'x',
  ...Object.values(LANGUAGES).map(({ forms }) => plain(forms.yes)),
])
const NO = new Set(['no', 'false', '0', ...Object.values(LANGUAGES).map(({ forms }) => plain(forms.no))])

function yesOrNo(cell: string): string {
  if (YES.has(plain(cell))) return 'yes'
  return NO.has(plain(cell)) ? 'no' : cell
}

/** The keys of choices that a cell names, parted by commas, and what it names besides. */
function chosenIn(
  choices: readonly { readonly key: string; readonly label: Readonly<Record<string, string>> }[],
  cell: string,
): { keys: string[]; rest: string[] } {
  const keyOf = new Map(
    choices.flatMap(({ key, label }) =>
      [key, ...Object.values(label)].map((each) => [plain(each), key] as const),
    ),
  )
  const whole = keyOf.get(plain(cell))
  if (whole !== undefined) return { keys: [whole], rest: [] }
  const parts = cell.split(/[,;|]/).map((part) => part.trim())
  const named = parts.filter((part) => part !== '')
  return {
    keys: named.flatMap((part) => keyOf.get(plain(part)) ?? []),
    rest: named.filter((part) => !keyOf.has(plain(part))),
  }
}

/** A cell as a form would be sent with it. */
function sentFor(question: Asked, cell: string): SentRow {
  const { id } = question
  if (question.kind === 'yesno' || question.kind === 'consent') return [[valueName(id), [yesOrNo(cell)]]]
  if (question.kind === 'date') {
    const day = readDay(cell)
    return [[valueName(id), [day.ok ? day.value : cell]]]
  }
  if (question.kind === 'ranking')
    return chosenIn(question.choices, cell).keys.map((key, i) => [rankName(id, key), [String(i + 1)]])
  if (!('choices' in question)) return [[valueName(id), [cell.trim()]]]
  const { keys, rest } = chosenIn(question.choices, cell)
  const hasOther = 'hasOther' in question && question.hasOther && rest.length > 0
  // What is no choice is none, and said to be.
  const values = hasOther ? [...keys, OTHER] : [...keys, ...rest]
  return hasOther
    ? [
        [valueName(id), values],
        [otherName(id), [rest.join(', ')]],
      ]
    : [[valueName(id), values]]
}

/**
 * Reads answers that were given elsewhere, such as on paper, out of a table (RFC 4180): a line each, a column a question.
 * Files are not read, nor what a piece or an address would hold.
 *
 * @throws UnreadableTable where it is none
 */
export function readLeads(text: string, questions: readonly Question[], reading: Reading): LeadTable {
  const [headings = [], ...rows] = readTable(text).rows
  const byHeading = new Map<string, Asked>()
  for (const question of questions) {
    if (question.kind === 'section' || question.kind === 'file' || question.kind === 'hidden') continue
    for (const heading of headingsOf(question, reading))
      if (!byHeading.has(heading)) byHeading.set(heading, question)
  }
  const columns = headings.map((heading) => byHeading.get(plain(heading)))
  const timeAt = headings.findIndex((heading) => AT_HEADINGS.includes(plain(heading)))
  return {
    taken: headings.filter((_heading, i) => columns[i] !== undefined || i === timeAt),
    left: headings.filter((_heading, i) => columns[i] === undefined && i !== timeAt),
    lines: rows.map((row, i) => ({
      line: i + 2,
      at: row[timeAt]?.trim() ?? '',
      sent: columns.flatMap((question, place) => {
        const cell = row[place] ?? ''
        return question && cell.trim() !== '' ? sentFor(question, cell) : []
      }),
    })),
  }
}
