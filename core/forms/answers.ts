/** A file that somebody sent: where it lies, and what it is. */
export interface AnswerFile {
  readonly key: string
  readonly name: string
  /** Its media type, told by its content. */
  readonly type: string
  readonly bytes: number
}
/** What was chosen, by the keys of the choices (of a ranking, the first place first), and what was written in beside. */
export interface Chosen {
  readonly chosen: readonly string[]
  readonly other?: string
}
/**
 * What a question was answered with: a text (also an address, a number to call as E.164, a day, a hidden value), a number
 * (also a rating and a scale), yes or no (also consent), what was chosen, or a file.
 */
export type Answer = string | number | boolean | Chosen | AnswerFile
/** Answers by the ids of their questions; those that were not answered are not in it. */
export type Answers = Readonly<Record<string, Answer>>

export const isChosen = (answer: Answer | undefined): answer is Chosen =>
  typeof answer === 'object' && 'chosen' in answer
export const isFile = (answer: Answer | undefined): answer is AnswerFile =>
  typeof answer === 'object' && 'bytes' in answer

/** The key that stands for what was written in beside the choices. */
export const OTHER = 'other'
