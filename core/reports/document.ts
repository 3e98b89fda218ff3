import {
  CHART_COLOURS,
  answerInWords,
  besideFigure,
  heldInWords,
  NOTHING_COUNTED,
  whereHeld,
  chartMarks,
  drawMap,
  drawShown,
  kindFor,
  markInWords,
  measureText,
  type ChartOption,
  type ShownAnswer,
} from '../charts/index.ts'
import type { RichText } from '../fields/index.ts'
import { dayRange, moment } from '../formats/index.ts'
import { measured, MEASURES, type Measure } from '../results/index.ts'
import { questionsIn, type MadeQuestion, type MadeReport } from './made.ts'
import { methodSentences } from './method.ts'
import { shownTable } from './shownTable.ts'

/** CSS pixels that charts of a report are as wide as. */
export const REPORT_CHART_PX = 680

/** One figure, with what stands beside it. */
export interface ReportFigure {
  readonly label: string
  readonly value: string
  readonly beside: string
}

/** A part of a report, as a page and a PDF both draw it. */
export type ReportPart =
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'words'; readonly text: RichText }
  /** What a question is of, in small letters. */
  | { readonly kind: 'about'; readonly lines: readonly string[] }
  | { readonly kind: 'figures'; readonly figures: readonly ReportFigure[] }
  /** What it shows in words stands in `said`; the table beside it has its numbers. */
  | { readonly kind: 'chart'; readonly option: ChartOption; readonly height: number; readonly said: string }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | {
      readonly kind: 'table'
      readonly caption: string
      readonly headings: readonly string[]
      /** Columns from this one on hold figures. */
      readonly figuresFrom: number
      readonly rows: readonly (readonly string[])[]
      /** How many rows are not among them, in words; empty where none. */
      readonly more: string
    }
  | { readonly kind: 'fault'; readonly sentence: string }

/** A report as it is read: its title, what stands under that, and its parts in their order. */
export interface ReportDocument {
  readonly title: string
  /** Whose it is, and of what days. */
  readonly subtitle: string
  readonly parts: readonly ReportPart[]
  /** When and how the figures were counted. */
  readonly method: readonly string[]
}

function aboutLines({ of, from, to, zone, before, narrowed }: MadeQuestion): string[] {
  return [
    ...(of === '' ? [] : [of]),
    `${dayRange({ from, to })}, ${zone}${before ? ` · against ${heldInWords(before)}` : ''}`,
    ...(narrowed.length === 0 ? [] : [`Only ${narrowed.join('; ')}`]),
  ]
}

const figureOf = (measure: Measure, { total, before }: MadeQuestion, currency: string): ReportFigure => ({
  label: MEASURES[measure].label,
  value: measureText(measure, measured(measure, total), currency),
  beside: besideFigure(measure, total, currency, whereHeld(before)),
})

/** What a question comes to: what was asked, and the scans that it rests on. */
const headlineOf = (question: MadeQuestion, currency: string): ReportFigure[] =>
  [question.what, question.what === 'scans' ? ('uniques' as const) : ('scans' as const)].map((measure) =>
    figureOf(measure, question, currency),
  )

function chartOf(question: MadeQuestion, currency: string): ReportPart[] {
  const { drawnAs, hasPatterns, title, total, answer, spot } = question
  if (drawnAs === 'none' || answer.rows.length === 0) return []
  const shown: ShownAnswer = {
    ...question,
    currency,
    // They are numbered as they are listed.
    marks: chartMarks(question.marks, question.by[0], question.zone),
  }
  const colours = CHART_COLOURS.light
  const kind = kindFor(shown, drawnAs === 'usual' ? null : drawnAs)
  const { option, height } =
    kind === 'map'
      ? drawMap(shown, colours, spot, REPORT_CHART_PX)
      : drawShown(kind, shown, { colours, hasPatterns })
  return [{ kind: 'chart', option, height, said: answerInWords(title, { ...answer, total }) }]
}

function questionParts(question: MadeQuestion, currency: string): ReportPart[] {
  const { marks, zone, answer } = question
  const table = shownTable(question, currency)
  return [
    { kind: 'heading', text: question.title },
    { kind: 'about', lines: aboutLines(question) },
    { kind: 'figures', figures: headlineOf(question, currency) },
    ...(answer.rows.length === 0 ? [{ kind: 'about' as const, lines: [NOTHING_COUNTED] }] : []),
    ...chartOf(question, currency),
    ...(marks.length === 0
      ? []
      : [
          {
            kind: 'list' as const,
            items: marks.map(
              (mark, i) =>
                `${String(i + 1)}: ${markInWords(mark, zone)}${mark.kind === 'destination' ? mark.detail : ''}`,
            ),
          },
        ]),
    ...(table ? [table] : []),
  ]
}

/** The days that all questions of a report have in common; null where they differ. */
function commonDays(questions: readonly MadeQuestion[]): { from: string; to: string } | null {
  const [first, ...others] = questions
  return first && others.every(({ from, to }) => from === first.from && to === first.to) ? first : null
}

/** What stands under the title of a report: whose it is, and of what days. */
export function reportSubtitle(made: Pick<MadeReport, 'owner' | 'campaign' | 'sections'>): string {
  const days = commonDays(questionsIn(made))
  return [made.owner, made.campaign, days ? dayRange(days) : ''].filter((each) => each !== '').join(' · ')
}

/** What each question of a report comes to, in its order: its title, and the figure that was asked for. */
export const reportHeadlines = (
  made: Pick<MadeReport, 'currency' | 'sections'>,
): { readonly title: string; readonly figure: ReportFigure }[] =>
  questionsIn(made).map((question) => ({
    title: question.title,
    figure: figureOf(question.what, question, made.currency),
  }))

/** A report as it is read, whatever it is then drawn as. */
export function reportDocument(made: MadeReport): ReportDocument {
  const { name, zone, madeAt, currency, sections } = made
  return {
    title: name,
    subtitle: reportSubtitle(made),
    parts: sections.flatMap((section): ReportPart[] => {
      switch (section.kind) {
        case 'words':
          return [{ kind: 'words', text: section.text }]
        case 'failed':
          return [
            { kind: 'heading', text: section.title },
            { kind: 'fault', sentence: section.sentence },
          ]
        case 'question':
          return questionParts(section, currency)
      }
    }),
    method: [`Made on ${moment(madeAt, zone)}, ${zone}.`, ...methodSentences(questionsIn(made))],
  }
}
