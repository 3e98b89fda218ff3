import { EntitySchema } from 'typeorm'
import type { Content } from '@flimbo/core/contents'
import type { Level, PieceProof } from '@flimbo/core/symbol'
import { id, integer, json, optionalInteger, optionalJson, optionalReal, real, text } from './columns.ts'

/** Codes that carry their content themselves. Moments are UTC milliseconds. */

export interface StaticCodeRow {
  id: number
  campaignId: number
  name: string
  content: Content
  level: Level
  sizeMm: number
  viewingM: number | null
  place: string
  printRun: number | null
  reference: string
  note: string
  /** The house style it is printed in; null for the plain one. */
  styleId: number | null
  /** What was measured, and what it was measured as; empty and null where nothing was yet. */
  proofKey: string
  proof: PieceProof | null
  version: number
  createdAt: number
}

export const staticCodes = new EntitySchema<StaticCodeRow>({
  name: 'static_codes',
  columns: {
    id,
    campaignId: integer,
    name: text,
    content: json,
    level: text,
    sizeMm: real,
    viewingM: optionalReal,
    place: text,
    printRun: optionalInteger,
    reference: text,
    note: text,
    styleId: optionalInteger,
    proofKey: text,
    proof: optionalJson,
    version: integer,
    createdAt: integer,
  },
})
