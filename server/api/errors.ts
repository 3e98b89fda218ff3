import { problemOf, type FieldFault, type Problem, type ProblemKind } from '@flimbo/core/api'

/** A failure the caller is told of, as problem details. Everything the office refuses is one of these. */
export class Refusal extends Error {
  override readonly name = 'Refusal'
  readonly problem: Problem

  constructor(kind: ProblemKind, sentence: string, more: { fields?: FieldFault[]; current?: unknown } = {}) {
    super(sentence)
    this.problem = problemOf(kind, sentence, more)
  }
}

export const signedOut = () =>
  new Refusal('unauthenticated', 'You are signed out. Sign in and try again; what you typed is still here.')
export const missing = (what: string) =>
  new Refusal('missing', `There is no such ${what}, or it belongs to another workspace.`)
export const wrongField = (path: string, message: string) =>
  new Refusal('invalid', message, { fields: [{ path, message }] })

/** A save that started from an older state than what is stored. */
export const overtaken = (what: string, current: unknown) =>
  new Refusal(
    'conflict',
    `Someone saved this ${what} after you opened it. Nothing was overwritten: compare both and decide.`,
    { current },
  )
