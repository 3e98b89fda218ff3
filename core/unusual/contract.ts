import { z } from 'zod'
import { endpoint, someIds } from '../api/index.ts'
import { hasAtMostOne, ONE_AT_MOST, thingsIn } from '../scans/index.ts'
import { resultsQueryFields } from '../results/index.ts'
import { UNUSUAL_KINDS } from './findings.ts'

/** Something unusual that was found. */
export const unusual = z.object({
  id: z.int(),
  at: z.int(),
  kind: z.enum(UNUSUAL_KINDS),
  campaignId: z.int(),
  campaignName: z.string(),
  codeId: z.int().nullable(),
  /** What it is of: the piece or the campaign. */
  name: z.string(),
  day: z.string(),
  /** The rest of the sentence. */
  sentence: z.string(),
})
export type Unusual = z.infer<typeof unusual>

/** What a day was expected to bring. */
export const expectedDay = z.object({
  day: z.string(),
  expected: z.number(),
  low: z.number(),
  high: z.number(),
})
export type ExpectedDay = z.infer<typeof expectedDay>

export const unusualApi = {
  list: endpoint({
    method: 'GET',
    path: '/unusual',
    room: 'unusual',
    access: { right: 'view' },
    summary: 'What was unusual in the last seven days and nobody has taken off the desk, the newest first',
    answer: z.object({ rows: z.array(unusual) }),
  }),
  seen: endpoint({
    method: 'POST',
    path: '/unusual/seen',
    room: 'unusual',
    access: { right: 'edit' },
    summary: 'Take what was unusual off the desk, for everybody',
    body: z.strictObject({ ids: someIds(200) }),
  }),
  expected: endpoint({
    method: 'GET',
    path: '/expected',
    room: 'unusual',
    access: { right: 'view', things: thingsIn('query'), orAll: true },
    summary:
      'Scans a day that weekday and season make expected; days of which too little is known are left out',
    query: z.strictObject(resultsQueryFields).refine(hasAtMostOne, ONE_AT_MOST),
    answer: z.object({ rows: z.array(expectedDay) }),
  }),
}
