import type { Answers, Question } from '@flimbo/core/forms'
import {
  questionCounter,
  type LeadNumbers,
  type NumbersBy,
  type QuestionCounter,
  type QuestionNumbers,
} from '@flimbo/core/leads'
import { dayIn } from '@flimbo/core/time'

/** A form whose answers are counted, as it was last shown. */
export interface CountedForm {
  readonly part: string
  readonly questions: readonly Question[]
  readonly languages: readonly string[]
}

/** What of a lead is counted; its answers as they are stored. */
export interface CountedLead {
  readonly answers: string
  readonly at: number
  readonly codeId: number
  readonly country: string
  readonly city: string
  readonly device: string
}

/** More groups than can be compared at a look are left out, those with fewest leads first. */
const GROUPS_MAX = 12

interface Group {
  total: number
  readonly counters: ReadonlyMap<string, QuestionCounter>
}

function groupOf({ questions, languages }: CountedForm): Group {
  const reading = { language: languages[0] ?? 'en', languages }
  return {
    total: 0,
    counters: new Map(
      questions.flatMap((question) => {
        const counter = questionCounter(question, reading)
        return counter ? [[question.id, counter] as const] : []
      }),
    ),
  }
}

function addTo(group: Group, answers: Answers): void {
  group.total++
  for (const [id, counter] of group.counters) counter.add(answers[id])
}

const numbersOf = ({ counters }: Group): QuestionNumbers[] =>
  [...counters.values()].map((counter) => counter.numbers())

const keyOf = (lead: CountedLead, by: NumbersBy, zone: string): string =>
  ({
    piece: String(lead.codeId),
    country: lead.country,
    city: lead.city,
    device: lead.device,
    month: by === 'month' ? dayIn(zone, lead.at).slice(0, 7) : '',
  })[by]

/** Counts the answers of leads: of all, and by what is asked for. Groups are named by whoever asks. */
export function countAnswers(
  leads: Iterable<CountedLead>,
  form: CountedForm,
  by: NumbersBy | undefined,
  zone: string,
): LeadNumbers {
  const all = groupOf(form)
  const groups = new Map<string, Group>()
  for (const lead of leads) {
    // They were answers when they were stored.
    const answers = JSON.parse(lead.answers) as Answers
    addTo(all, answers)
    if (by === undefined) continue
    const key = keyOf(lead, by, zone)
    const group = groups.get(key) ?? groupOf(form)
    groups.set(key, group)
    addTo(group, answers)
  }
  const sorted = [...groups].sort(([a, { total: n }], [b, { total: m }]) => m - n || (a < b ? -1 : 1))
  const kept = sorted.slice(0, GROUPS_MAX)
  // Months are read in their order.
  if (by === 'month') kept.sort(([a], [b]) => (a < b ? -1 : 1))
  return {
    total: all.total,
    questions: numbersOf(all),
    groups: kept.map(([key, group]) => ({
      key,
      name: key,
      total: group.total,
      questions: numbersOf(group),
    })),
  }
}
