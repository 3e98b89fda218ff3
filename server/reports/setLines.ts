import { runsOf, widthOfRun, type LetterRun, type Weight } from './fonts.ts'

/** Text of one look within a paragraph. */
export interface Span {
  readonly text: string
  readonly weight: Weight
  readonly isSlanted?: boolean
  /** Where it leads. */
  readonly link?: string | undefined
}

/** A run where it stands on its line. */
export interface PlacedRun extends LetterRun {
  /** From the beginning of the line. */
  readonly x: number
  readonly width: number
  readonly span: Span
}
export interface Line {
  readonly runs: readonly PlacedRun[]
  readonly width: number
}

/** A word with the space before it, or a line break. */
interface Word {
  readonly runs: readonly (LetterRun & { readonly width: number; readonly span: Span })[]
  readonly width: number
  readonly isBreak: boolean
}

const BREAK: Word = { runs: [], width: 0, isBreak: true }

function measuredWord(text: string, span: Span, size: number): Word {
  const runs = runsOf(text, span.weight).map((run) => ({ ...run, span, width: widthOfRun(run, size) }))
  return { runs, width: runs.reduce((sum, { width }) => sum + width, 0), isBreak: false }
}

/** A word that is wider than a line, in parts that are not. */
function brokenWord(text: string, span: Span, size: number, width: number): Word[] {
  const whole = measuredWord(text, span, size)
  if (whole.width <= width || text.length < 2) return [whole]
  const signs = [...text]
  const middle = Math.ceil(signs.length / 2)
  const halves = [signs.slice(0, middle).join(''), signs.slice(middle).join('')]
  return halves.flatMap((half) => brokenWord(half, span, size, width))
}

const wordsOf = (spans: readonly Span[], size: number, width: number): Word[] =>
  spans.flatMap((span) =>
    span.text.split(/(\n)|( +)/).flatMap((text): Word[] => {
      if (text === undefined || text === '') return []
      return text === '\n' ? [BREAK] : brokenWord(text, span, size, width)
    }),
  )

/**
 * Sets text in lines no wider than `width`; a word that is wider is broken where the line ends.
 *
 * @param size of the letters, and `width`, in one unit
 */
export function setLines(spans: readonly Span[], size: number, width: number): Line[] {
  const lines: Line[] = []
  let line: PlacedRun[] = []
  let x = 0
  const end = () => {
    // A space at the end of a line has no width.
    while (line.at(-1)?.text.trim() === '' && line.length > 0) line.pop()
    const last = line.at(-1)
    lines.push({ runs: line, width: last ? last.x + last.width : 0 })
    line = []
    x = 0
  }
  for (const word of wordsOf(spans, size, width)) {
    const isSpace = word.runs.every(({ text }) => text.trim() === '')
    if (word.isBreak || (x > 0 && !isSpace && x + word.width > width)) end()
    if (word.isBreak || (x === 0 && isSpace)) continue
    for (const run of word.runs) {
      line.push({ ...run, x })
      x += run.width
    }
  }
  if (line.length > 0) end()
  return lines
}
