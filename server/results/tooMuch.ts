import { wrongField } from '../api/index.ts'

/** Errors that say what to ask instead, by their names: they come from another thread. */
const TOO_MUCH: ReadonlySet<string> = new Set(['TooManyBuckets', 'TooManyPairs'])

/**
 * Asks a reading thread something that may be too much.
 *
 * @param field what the asker is to change then
 * @throws Refusal that says what to ask instead
 */
export async function unlessTooMuch<T>(field: string, ask: () => Promise<T>): Promise<T> {
  try {
    return await ask()
  } catch (error) {
    if (error instanceof Error && TOO_MUCH.has(error.name)) throw wrongField(field, error.message)
    throw error
  }
}
