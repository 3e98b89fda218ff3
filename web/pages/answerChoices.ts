import { OTHER, type Question } from '@flimbo/core/forms'

/** What can be chosen as an answer to a question, by key, and what each is called; null where it is written. */
export function answerChoices(
  question: Question,
  said: (value: Readonly<Record<string, string>>) => string,
): readonly (readonly [string, string])[] | null {
  if (question.kind === 'yesno' || question.kind === 'consent')
    return [
      ['yes', 'Yes'],
      ['no', 'No'],
    ]
  if (!('choices' in question)) return null
  const own = question.choices.map(({ key, label }) => [key, said(label) || key] as const)
  return 'hasOther' in question && question.hasOther ? [...own, [OTHER, 'Other'] as const] : own
}
