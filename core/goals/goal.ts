import { z } from 'zod'
import { requiredLine } from '../api/index.ts'
import { patternFault } from './addressPattern.ts'

/** How a goal is reached: by a page that is opened, by something that is clicked, or by what the site itself sends. */
export const GOAL_KINDS = ['address', 'click', 'sent'] as const
export type GoalKind = (typeof GOAL_KINDS)[number]

/** How often a goal counts: once for each scan, or each time. */
export const GOAL_COUNTS = ['scan', 'each'] as const

export const VALUE_MAX = 1_000_000_000
/** Goals of a campaign. */
export const GOALS_MAX = 50

/** An amount in the workspace's currency, down to its thousandths. */
export const goalValue = z
  .number({ error: 'Write the value as a number.' })
  .min(0, 'A value is not below 0.')
  .max(VALUE_MAX, 'Give a value of at most 1,000,000,000.')

/** What a site calls a goal by. */
export const goalKey = z
  .string()
  .trim()
  .toLowerCase()
  .regex(/^[a-z0-9]+(?:-[a-z0-9]+)*$/, 'Use small letters, digits and single hyphens, such as season-pass.')
  .max(40, 'Make the key no longer than 40 characters.')

/** What somebody decides of a goal. */
export const goalFields = {
  name: requiredLine('the goal a name', 80),
  kind: z.enum(GOAL_KINDS),
  key: goalKey,
  /** Of a page that is opened: its path, perhaps with its host before it; `*` stands for anything. Else empty. */
  pattern: z.string().trim().max(400, 'Make the address no longer than 400 characters.'),
  /** Of something that is clicked: a CSS selector. Else empty. */
  selector: z.string().trim().max(200, 'Make the selector no longer than 200 characters.'),
  /** What each is worth where the site says nothing else; null for nothing. */
  value: goalValue.nullable(),
  counts: z.enum(GOAL_COUNTS),
  /** Whether only signed calls count: what a browser sends, its visitor can make up. */
  signedOnly: z.boolean(),
  isOn: z.boolean(),
}

/** A goal as somebody decides it. */
export const goalSettings = z.strictObject(goalFields).superRefine((goal, context) => {
  const fault = goal.kind === 'address' ? patternFault(goal.pattern) : null
  if (fault !== null) context.addIssue({ code: 'custom', path: ['pattern'], message: fault })
  if (goal.kind === 'click' && goal.selector === '')
    context.addIssue({
      code: 'custom',
      path: ['selector'],
      message: 'Say what is clicked, by a CSS selector such as #buy.',
    })
  if (goal.kind !== 'sent' && goal.signedOnly)
    context.addIssue({
      code: 'custom',
      path: ['signedOnly'],
      message: 'Only what the site’s server sends can be signed.',
    })
})
export type GoalSettings = z.output<typeof goalSettings>

/** A goal as it is stored. */
export interface Goal extends GoalSettings {
  readonly id: number
}
