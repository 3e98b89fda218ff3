/** A stretch of numbers, its beginning included. */
export interface AnswerRange {
  readonly from: number
  readonly to: number
  /** Whether its end belongs to it. */
  readonly isClosed: boolean
}

/** A number, or a stretch of them, as leads are found by it: `7`, `10..20`, or `10..20-` without its end; null where it is none. */
export function answerRange(key: string): AnswerRange | null {
  const isClosed = !/\d-$/.test(key)
  const [from = '', to = from, ...more] = (isClosed ? key : key.slice(0, -1)).split('..')
  const isNumber = (text: string) => text.trim() !== '' && Number.isFinite(Number(text))
  return more.length === 0 && isNumber(from) && isNumber(to)
    ? { from: Number(from), to: Number(to), isClosed }
    : null
}
