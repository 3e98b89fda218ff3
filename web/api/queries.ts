import {
  keepPreviousData,
  useMutation,
  useQuery,
  useQueryClient,
  type UseMutationResult,
  type UseQueryResult,
} from '@tanstack/react-query'
import type { AnswerOf, Endpoint, InputOf } from '@flimbo/core/api'
import { ApiProblem, call } from './call.ts'

/** Reads an endpoint; the last answer stays in its place while the next one comes. */
export function useAnswer<E extends Endpoint>(
  described: E,
  input: InputOf<E>,
  options: { enabled?: boolean; refetchInterval?: number } = {},
): UseQueryResult<AnswerOf<E>> {
  return useQuery({
    queryKey: [described.path, input],
    queryFn: ({ signal }) => call(described, input, signal),
    placeholderData: keepPreviousData,
    ...options,
  })
}

/** Writes through an endpoint; everything shown is read anew afterwards. */
export function useChange<E extends Endpoint>(
  described: E,
): UseMutationResult<AnswerOf<E>, Error, InputOf<E>> {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: (input: InputOf<E>) => call(described, input),
    onSuccess: () => queries.invalidateQueries(),
    onError: (error) => {
      // A session that ended elsewhere shows the sign-in, someone's newer change shows everywhere; other problems belong to the form.
      if (!(error instanceof ApiProblem)) return
      if (error.problem.status === 401) void queries.invalidateQueries({ queryKey: ['/session'] })
      if (error.problem.status === 409) void queries.invalidateQueries()
    },
  })
}
