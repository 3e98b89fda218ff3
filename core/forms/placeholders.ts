import { isChosen, isFile, type Answer, type Answers } from './answers.ts'
import type { Question } from './questions.ts'
import { said, type RichText, type Run } from '../fields/index.ts'
import type { Said } from './said.ts'

/** What an answer says to people, in the words that the form has for its choices. */
export function answerText(question: Question, answer: Answer | undefined, around: Said): string {
  if (answer === undefined) return ''
  if (typeof answer === 'boolean') return around.words[answer ? 'yes' : 'no']
  if (typeof answer === 'number')
    return new Intl.NumberFormat(around.language, { maximumFractionDigits: 6 }).format(answer)
  if (isFile(answer)) return answer.name
  if (!isChosen(answer)) return answer
  const choices = 'choices' in question ? question.choices : []
  const texts = answer.chosen.map((key) => {
    const choice = choices.find((each) => each.key === key)
    return choice ? said(around, choice.label).text : key
  })
  return [...texts, ...(answer.other === undefined ? [] : [answer.other])].join(', ')
}

/**
 * Puts answers into a text: `{short name}` becomes what was answered; what names nothing stays as it is written.
 * Whoever writes the text elsewhere writes it as text.
 */
export function fillAnswers(
  text: string,
  questions: readonly Question[],
  answers: Answers,
  around: Said,
): string {
  const byName = new Map(
    questions.flatMap((each): [string, Question][] =>
      each.kind === 'section' || each.name.trim() === '' ? [] : [[each.name.trim().toLowerCase(), each]],
    ),
  )
  return text.replace(/\{([^{}\n]{1,40})\}/g, (whole, name: string) => {
    const question = byName.get(name.trim().toLowerCase())
    return question ? answerText(question, answers[question.id], around) : whole
  })
}

/** The same in a text with looks: what was answered is text in it, whatever it says. */
export function fillRich(
  blocks: RichText,
  questions: readonly Question[],
  answers: Answers,
  around: Said,
): RichText {
  const filled = (runs: readonly Run[]): Run[] =>
    runs.map((run) => ({ ...run, text: fillAnswers(run.text, questions, answers, around) }))
  return blocks.map((block) =>
    block.kind === 'paragraph'
      ? { ...block, runs: filled(block.runs) }
      : { ...block, items: block.items.map(filled) },
  )
}
