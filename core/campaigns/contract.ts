import { calendarDay, zoneName } from '../time/index.ts'
import { utmValue } from '../tagging/index.ts'
import { z } from 'zod'
import { endpoint, idParams, pageOf, pageQuery, requiredLine } from '../api/index.ts'
import { referenceHours } from '../goals/index.ts'
import { tally } from '../scans/index.ts'

export const campaign = z.object({
  id: z.int(),
  clientId: z.int(),
  name: z.string(),
  zone: z.string(),
  utmCampaign: z.string(),
  startsOn: z.string().nullable(),
  endsOn: z.string().nullable(),
  /** The domain new short links are on; null for the client's or the workspace's own choice. */
  domainId: z.int().nullable(),
  /** Whether it stands first on the desk. */
  pinned: z.boolean(),
  /** How many hours what happens on the site may count for a scan; 0: redirects carry no reference of it. */
  referenceHours: z.int(),
  archivedAt: z.int().nullable(),
  version: z.int(),
  createdAt: z.int(),
  codes: z.int(),
  routes: z.int(),
  pages: z.int(),
  /** Answers that its forms took, those that were erased since too. */
  leads: z.int(),
  scans: tally,
  /** Counted scans a day over the last 30 days in the campaign's zone, the current day last. */
  recent: z.array(z.int()),
})
export type Campaign = z.infer<typeof campaign>

const fields = {
  name: requiredLine('a name', 200),
  zone: zoneName,
  utmCampaign: utmValue('a campaign value').refine(
    (v) => v !== '',
    'Give a campaign value: without it visits cannot be told apart.',
  ),
  startsOn: calendarDay.nullable(),
  endsOn: calendarDay.nullable(),
  domainId: z.int().nullable(),
}

const inOrder = (c: { startsOn?: string | null | undefined; endsOn?: string | null | undefined }) =>
  !c.startsOn || !c.endsOn || c.startsOn <= c.endsOn
const ORDER = { message: 'The last day lies before the first.', path: ['endsOn'] }

export const newCampaign = z
  .strictObject({
    ...fields,
    startsOn: fields.startsOn.default(null),
    endsOn: fields.endsOn.default(null),
    domainId: fields.domainId.default(null),
    clientId: z.int().optional(),
  })
  .refine(inOrder, ORDER)
export const campaignChange = z
  .strictObject({ version: z.int() })
  .extend(z.strictObject(fields).partial().shape)
  .extend({
    pinned: z.boolean().optional(),
    archived: z.boolean().optional(),
    referenceHours: referenceHours.optional(),
  })
  .refine(inOrder, ORDER)

/** What a copy is called and when it runs; see `nextYear` for what is usually wanted. */
export const campaignCopy = z
  .strictObject({
    name: fields.name,
    utmCampaign: fields.utmCampaign,
    startsOn: fields.startsOn,
    endsOn: fields.endsOn,
    pieceDays: z.enum(['shift', 'clear']),
  })
  .refine(inOrder, ORDER)
export type CampaignCopy = z.input<typeof campaignCopy>

export const CAMPAIGN_SORTS = ['name', 'createdAt', 'scans', 'lastScan'] as const

export const campaignsApi = {
  list: endpoint({
    method: 'GET',
    path: '/campaigns',
    room: 'campaigns',
    access: { right: 'view' },
    summary: 'The campaigns of the workspace',
    query: pageQuery(CAMPAIGN_SORTS, 'name').extend({
      shown: z.enum(['current', 'archived', 'all']).default('current'),
    }),
    answer: pageOf(campaign),
  }),
  names: endpoint({
    method: 'GET',
    path: '/campaigns/names',
    room: 'campaigns',
    access: { right: 'view' },
    summary: 'What the current campaigns are called, without their figures',
    answer: z.object({ rows: z.array(campaign.pick({ id: true, name: true, clientId: true })) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/campaigns',
    room: 'campaigns',
    access: { right: 'edit', things: { client: 'body.clientId' } },
    status: 201,
    summary: 'Create a campaign',
    body: newCampaign,
    answer: campaign,
  }),
  get: endpoint({
    method: 'GET',
    path: '/campaigns/:id',
    room: 'campaigns',
    access: { right: 'view', things: { campaign: 'params.id' } },
    summary: 'One campaign',
    params: idParams,
    answer: campaign,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/campaigns/:id',
    room: 'campaigns',
    access: { right: 'edit', things: { campaign: 'params.id' } },
    summary: 'Change a campaign',
    params: idParams,
    body: campaignChange,
    answer: campaign,
  }),
  copy: endpoint({
    method: 'POST',
    path: '/campaigns/:id/copies',
    room: 'campaigns',
    access: { right: 'edit', things: { campaign: 'params.id' } },
    status: 201,
    summary: 'Duplicate a campaign: the same routes and pieces under new short links, without scans',
    params: idParams,
    body: campaignCopy,
    answer: campaign,
  }),
}
