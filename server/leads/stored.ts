import type Sqlite from 'better-sqlite3'
import type { Answers } from '@flimbo/core/forms'

/** Whether somebody confirmed their mail address, and until when they can. */
export interface Confirming {
  readonly campaignId: number
  readonly language: string
  readonly email: string
  readonly confirmBy: number | null
  readonly confirmedAt: number | null
}

/** What front doors ask of answers that are stored. */
export function storedAnswers(database: Sqlite.Database) {
  const confirming = database.prepare(
    'SELECT campaignId, language, email, confirmBy, confirmedAt FROM leads WHERE id = ?',
  )
  const count = database.prepare('SELECT answers FROM form_counts WHERE pageId = ? AND part = ?').pluck()
  const sent = database.prepare('SELECT answers FROM leads WHERE sendKey = ?').pluck()
  return {
    /** How many answers a form of a page took. */
    answersOf: (pageId: number, part: string): number => (count.get(pageId, part) as number | undefined) ?? 0,
    /** Whose address it is that may be confirmed; undefined where nobody's is. */
    confirmingOf: (leadId: number): Confirming | undefined =>
      confirming.get(leadId) as Confirming | undefined,
    /** The answers that were stored with a key; null where none were. */
    sentAnswers: (sendKey: string): Answers | null => {
      const text = sent.get(sendKey) as string | undefined
      // It was answers when it was stored.
      return text === undefined ? null : (JSON.parse(text) as Answers)
    },
  }
}
