import { z } from 'zod'
import { endpoint } from '../api/index.ts'

const hit = z.object({
  kind: z.enum(['campaign', 'route', 'code', 'page']),
  id: z.int(),
  campaignId: z.int(),
  name: z.string(),
  detail: z.string(),
})
export type Hit = z.infer<typeof hit>

export const findApi = endpoint({
  method: 'GET',
  path: '/find',
  room: 'workspace',
  access: { right: 'view' },
  summary: 'Campaigns, routes, codes and pages by name, short link, source or destination',
  query: z.strictObject({ q: z.string().trim().min(1, 'Type what you look for.').max(200) }),
  answer: z.object({ hits: z.array(hit) }),
})
