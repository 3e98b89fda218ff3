import { namingQuestions, resultsApi, type Answer } from '@flimbo/core/results'
import { useAnswer } from '../api/index.ts'
import type { AskedResults } from './useResults.ts'

/** What the keys are called that figures are narrowed to, where these are numbers: as the server names them. */
export function useKeyNames({ of, from, to, view: { filters } }: AskedResults): Answer['names'] {
  const questions = namingQuestions(filters)
  const { data } = useAnswer(
    resultsApi.ask,
    {
      body: {
        ...of,
        from,
        to,
        questions,
      },
    },
    { enabled: questions.length > 0 },
  )
  const answers = questions.length === 0 ? [] : (data?.answers ?? [])
  return answers.reduce<Answer['names']>((all, { names }) => ({ ...all, ...names }), {})
}
