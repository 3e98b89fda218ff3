import {
  addressOf,
  isProblemOf,
  problemOf,
  type AnswerOf,
  type Endpoint,
  type FieldFault,
  type InputOf,
  type Problem,
} from '@flimbo/core/api'

/** What the office refused, with its sentence. */
export class ApiProblem extends Error {
  override readonly name = 'ApiProblem'
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

/** What was wrong, in the server's own sentence: of the first field concerned, or of the whole; `otherwise` where no answer came. */
export function sentenceOf(error: unknown, otherwise: string): string {
  return error instanceof ApiProblem
    ? (error.problem.fields?.[0]?.message ?? error.problem.detail)
    : otherwise
}

/** What the server found wrong, field by field; nothing where no such answer came. */
export const faultsIn = (error: unknown): readonly FieldFault[] =>
  error instanceof ApiProblem ? (error.problem.fields ?? []) : []

/** What somebody else stored since, where a save met that; null for every other refusal, of the same status too. */
export function newerOf<T>(error: unknown): { readonly current: T } | null {
  if (!(error instanceof ApiProblem) || !isProblemOf('conflict', error.problem)) return null
  // The endpoint that was called answers with what it keeps.
  return { current: error.problem.current as T }
}

interface Parts {
  params?: Record<string, unknown>
  query?: Record<string, unknown>
  body?: unknown
}

/** The address of an endpoint on this office, for links and downloads. */
export function hrefOf(described: Endpoint, input: Parts): string {
  return `/api${addressOf(described.path, input.params, input.query)}`
}

async function problemFrom(response: Response): Promise<Problem> {
  try {
    return (await response.json()) as Problem
  } catch {
    return problemOf(
      'failed',
      'The server answered in a way Flimbo does not understand. Try again in a minute.',
    )
  }
}

async function sent<E extends Endpoint>(
  described: E,
  parts: Parts,
  content: { type: string; body: BodyInit } | null,
  signal?: AbortSignal,
): Promise<AnswerOf<E>> {
  let response: Response
  try {
    response = await fetch(hrefOf(described, parts), {
      method: described.method,
      signal,
      headers: content === null ? {} : { 'Content-Type': content.type },
      body: content?.body,
    })
  } catch (error) {
    if (signal?.aborted) throw error
    throw new ApiProblem(
      problemOf(
        'unavailable',
        'Flimbo cannot be reached. What you typed is still here; try again when the connection is back.',
      ),
    )
  }
  if (!response.ok) throw new ApiProblem(await problemFrom(response))
  return (response.status === 204 ? undefined : await response.json()) as AnswerOf<E>
}

/**
 * Calls an endpoint of the office with what its contract asks for.
 * @throws ApiProblem where the office refuses or cannot be reached
 */
export function call<E extends Endpoint>(
  described: E,
  input: InputOf<E>,
  signal?: AbortSignal,
): Promise<AnswerOf<E>> {
  // Which parts there are depends on the endpoint; InputOf has checked that.
  const parts = input as Parts
  return sent(
    described,
    parts,
    parts.body === undefined ? null : { type: 'application/json', body: JSON.stringify(parts.body) },
    signal,
  )
}

/** The same for an endpoint that takes a file, byte for byte. */
export function upload<E extends Endpoint>(
  described: E,
  input: InputOf<E>,
  file: Blob | Uint8Array<ArrayBuffer>,
): Promise<AnswerOf<E>> {
  return sent(described, input as Parts, { type: described.takes ?? 'application/octet-stream', body: file })
}
