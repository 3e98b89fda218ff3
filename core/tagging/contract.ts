import { z } from 'zod'
import { endpoint, idParams, versioned, versionedChange } from '../api/index.ts'
import { channelRules } from './channels.ts'
import { houseRules } from './houseRules.ts'
import { finding, FINDING_KINDS } from './lint.ts'

const counted = z.array(z.object({ value: z.string(), pieces: z.int() }))

/** Values in use, the most carried first: what fields offer, and what look-alikes are told by. */
export const tagValues = z.object({
  medium: counted,
  source: counted,
  campaign: counted,
  content: counted,
  term: counted,
})
export type TagValues = z.infer<typeof tagValues>

/** Findings of a campaign by kind, with how many pieces each concerns and how many can be fixed at a stroke. */
export const review = z.object({
  pieces: z.int(),
  kinds: z.array(
    z.object({
      kind: z.enum(FINDING_KINDS),
      field: z.string(),
      pieces: z.int(),
      fixable: z.int(),
      example: finding.shape.sentence,
    }),
  ),
  unassigned: z.int(),
})
export type Review = z.infer<typeof review>

export const taggingApi = {
  rules: endpoint({
    method: 'GET',
    path: '/house-rules',
    room: 'tagging',
    access: { right: 'view' },
    summary: 'How this workspace writes its tags',
    answer: versioned(houseRules),
  }),
  changeRules: endpoint({
    method: 'PATCH',
    path: '/house-rules',
    room: 'tagging',
    access: { right: 'administer' },
    summary: 'Change the house rules',
    body: versionedChange(houseRules),
    answer: versioned(houseRules),
  }),
  channels: endpoint({
    method: 'GET',
    path: '/channels',
    room: 'tagging',
    access: { right: 'view' },
    summary: 'The ordered table that sorts visits into channels',
    answer: versioned(channelRules),
  }),
  changeChannels: endpoint({
    method: 'PATCH',
    path: '/channels',
    room: 'tagging',
    access: { right: 'administer' },
    summary: 'Change the channel table',
    body: versionedChange(channelRules),
    answer: versioned(channelRules),
  }),
  values: endpoint({
    method: 'GET',
    path: '/tag-values',
    room: 'tagging',
    access: { right: 'view' },
    summary: 'Tag values in use across the workspace',
    answer: tagValues,
  }),
  review: endpoint({
    method: 'GET',
    path: '/campaigns/:id/review',
    room: 'tagging',
    access: { right: 'view', things: { campaign: 'params.id' } },
    summary: 'What the linter finds in a whole campaign',
    params: idParams,
    answer: review,
  }),
}
