import type Sqlite from 'better-sqlite3'
import type { Answers } from '@flimbo/core/forms'

/** What front doors ask of answers that are stored. */
export function storedAnswers(database: Sqlite.Database) {
  const count = database.prepare('SELECT answers FROM form_counts WHERE pageId = ? AND part = ?').pluck()
  const sent = database.prepare('SELECT answers FROM leads WHERE sendKey = ?').pluck()
  return {
    /** How many answers a form of a page took. */
    answersOf: (pageId: number, part: string): number => (count.get(pageId, part) as number | undefined) ?? 0,
    /** The answers that were stored with a key; null where none were. */
    sentAnswers: (sendKey: string): Answers | null => {
      const text = sent.get(sendKey) as string | undefined
      // It was answers when it was stored.
      return text === undefined ? null : (JSON.parse(text) as Answers)
    },
  }
}
