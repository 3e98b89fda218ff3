import { EntitySchema } from 'typeorm'
import type { SavedValue } from '@flimbo/core/results'
import { id, integer, json, optionalInteger, text } from './columns.ts'

/** Questions to the figures, and what is noted beside them. Moments are UTC milliseconds. */

export interface QuestionRow {
  id: number
  workspaceId: number
  name: string
  value: SavedValue
  personId: number
  at: number
}

/** What somebody noted on a calendar day: of a campaign, or of all where that is null. */
export interface DayNoteRow {
  id: number
  workspaceId: number
  campaignId: number | null
  day: string
  text: string
  personId: number
  at: number
}

export const questions = new EntitySchema<QuestionRow>({
  name: 'questions',
  columns: { id, workspaceId: integer, name: text, value: json, personId: integer, at: integer },
})

export const dayNotes = new EntitySchema<DayNoteRow>({
  name: 'day_notes',
  columns: {
    id,
    workspaceId: integer,
    campaignId: optionalInteger,
    day: text,
    text,
    personId: integer,
    at: integer,
  },
})
