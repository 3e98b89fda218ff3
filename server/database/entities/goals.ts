import { EntitySchema } from 'typeorm'
import type { GoalSettings } from '@flimbo/core/goals'
import { id, integer, optionalReal, text } from './columns.ts'

/** Something wanted that happens on a site after a scan. What reached it is written and read by prepared SQL. */
export interface GoalRow extends GoalSettings {
  id: number
  campaignId: number
  version: number
  createdAt: number
}

export const goals = new EntitySchema<GoalRow>({
  name: 'goals',
  columns: {
    id,
    campaignId: integer,
    name: text,
    kind: text,
    key: text,
    pattern: text,
    selector: text,
    value: optionalReal,
    counts: text,
    signedOnly: { type: 'boolean' },
    isOn: { type: 'boolean' },
    version: integer,
    createdAt: integer,
  },
})
