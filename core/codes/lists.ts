import { z } from 'zod'
import { idQuery } from '../api/index.ts'
import { state } from '../routing/index.ts'
import { PROOF_STATES } from '../symbol/index.ts'
import { FINDING_KINDS } from '../tagging/index.ts'
import { codeSet } from './piece.ts'

export const CODE_SORTS = [
  'name',
  'medium',
  'source',
  'content',
  'term',
  'slug',
  'createdAt',
  'scans',
  'lastScan',
  'state',
  'sizeMm',
  'viewingM',
  'place',
  'printRun',
  'cost',
  'liveOn',
  'downOn',
  'reference',
  'key',
  'route',
] as const
export const GROUPS = ['medium', 'route'] as const
export type Group = (typeof GROUPS)[number]

/** Which pieces of a campaign are meant. */
export const codeFilter = z.strictObject({
  campaignId: idQuery.optional(),
  routeId: idQuery.optional(),
  search: z.string().max(200).optional(),
  medium: z.string().max(150).optional(),
  source: z.string().max(150).optional(),
  state: state.optional(),
  /** Current pieces, archived ones, or those deleted before anybody scanned them. */
  shown: z.enum(['current', 'archived', 'deleted', 'all']).default('current'),
  /** Only those that are so far on the way to print. */
  print: z.enum(PROOF_STATES).optional(),
  /** Only those with such a finding. */
  finding: z.enum(FINDING_KINDS).optional(),
  /** Only those that fall in a channel; `-` stands for those that fall in none. */
  channel: z.string().max(60).optional(),
})
export type CodeFilter = z.input<typeof codeFilter>

export const change = z.strictObject({ id: z.int(), version: z.int().optional(), set: codeSet })
export type CodeCellChange = z.input<typeof change>
export const CHANGES_MAX = 50_000
/** Thousands of cells may be changed in one go. */
export const CHANGES_BYTES_MAX = 16 << 20

export const group = z.object({
  key: z.string(),
  pieces: z.int(),
  scans: z.int(),
  printRun: z.int(),
  cost: z.number(),
})
export type CodeGroup = z.infer<typeof group>

export const SERIES_MAX = 5000
/** Numbers of a series as they stand in `{n}`: 1 to 120 with three digits is 001 to 120. */
export const seriesNumbers = z
  .strictObject({
    from: z.int({ error: 'Give a whole number.' }).min(0, 'Begin at 0 or above.').max(9_999_999),
    to: z.int({ error: 'Give a whole number.' }).min(0).max(9_999_999),
    digits: z.int().min(1).max(7),
  })
  .refine(({ from, to }) => from <= to, { message: 'The last number lies before the first.', path: ['to'] })
  .refine(({ from, to }) => to - from < SERIES_MAX, {
    message: `A series has at most ${String(SERIES_MAX)} pieces.`,
    path: ['to'],
  })
