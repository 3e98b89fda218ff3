import { EntitySchema } from 'typeorm'
import type { Finding } from '@flimbo/core/unusual'
import { id, integer, optionalInteger, real, text } from './columns.ts'

/** Something unusual that was found; `codeId` is 0 of a whole campaign. Moments are UTC milliseconds. */
export interface UnusualRow extends Omit<Finding, 'codeId'> {
  id: number
  workspaceId: number
  campaignId: number
  codeId: number
  at: number
  /** When somebody took it off the desk; null where nobody has. */
  seenAt: number | null
}

export const unusual = new EntitySchema<UnusualRow>({
  name: 'unusual',
  columns: {
    id,
    workspaceId: integer,
    campaignId: integer,
    codeId: integer,
    kind: text,
    day: text,
    key: text,
    counted: integer,
    expected: real,
    at: integer,
    seenAt: optionalInteger,
  },
})
