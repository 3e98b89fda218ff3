import { z } from 'zod'
import { line } from '../api/index.ts'
import { rowKey } from '../fields/index.ts'

const STATES_MAX = 12

/** The state that whoever answers is in at first. */
export const NEW_STATE = 'new'

const leadStateRow = z.strictObject({
  /** What leads keep of it: it stays the same when the state is renamed. */
  key: rowKey,
  name: line('the name', 40).refine((name) => name !== '', 'Write the name of the state.'),
})
export type LeadStateRow = z.infer<typeof leadStateRow>

/** Where the office can stand with somebody who answered: a list of each workspace's own. */
export const leadStates = z.strictObject({
  states: z
    .array(leadStateRow)
    .max(STATES_MAX, `There are at most ${String(STATES_MAX)} states.`)
    .refine((all) => all[0]?.key === NEW_STATE, 'The first state is that of whoever has just answered.')
    .refine((all) => new Set(all.map(({ key }) => key)).size === all.length, 'A state is listed twice.')
    .refine(
      (all) => new Set(all.map(({ name }) => name.toLowerCase())).size === all.length,
      'Two states have the same name.',
    ),
})
export type LeadStates = z.infer<typeof leadStates>

/** The states where a workspace has decided nothing. */
export const USUAL_STATES: LeadStates = {
  states: [
    { key: NEW_STATE, name: 'New' },
    { key: 'open', name: 'Open' },
    { key: 'done', name: 'Done' },
    { key: 'unusable', name: 'Not usable' },
  ],
}
