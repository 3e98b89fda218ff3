import { filterEntries, isOfKind, type Dimension } from '@flimbo/core/dimensions'
import { resultsApi, ROWS_MAX, type Answer } from '@flimbo/core/results'
import { useAnswer } from '../api/index.ts'
import type { AskedResults } from './useResults.ts'

/** Dimensions whose keys are numbers of things. */
const NUMBERED: ReadonlySet<Dimension> = new Set(['client', 'campaign', 'route', 'piece', 'lane', 'variant'])

/** What the keys are called that figures are narrowed to, where these are numbers: as the server names them. */
export function useKeyNames({ of, from, to, view: { filters } }: AskedResults): Answer['names'] {
  const wanted = filterEntries(filters).filter(([name]) => NUMBERED.has(name))
  const { data } = useAnswer(
    resultsApi.ask,
    {
      body: {
        ...of,
        from,
        to,
        questions: wanted.map(([name, keys]) => ({
          by: [name],
          filters: isOfKind(name, 'piece') ? { [name]: keys } : {},
          top: ROWS_MAX,
        })),
      },
    },
    { enabled: wanted.length > 0 },
  )
  const answers = wanted.length === 0 ? [] : (data?.answers ?? [])
  return answers.reduce<Answer['names']>((all, { names }) => ({ ...all, ...names }), {})
}
