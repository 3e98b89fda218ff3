import type { LeadFilter } from '@flimbo/core/leads'
import { dayIn, openSpanOfDays } from '@flimbo/core/time'
import { wrongField } from '../api/index.ts'
import type { LeadQuery } from './queries.ts'

/** Which leads are meant; days are those of the campaign, or of the workspace. */
export function leadQueryOf(
  workspaceId: number,
  zone: string,
  { from, to, ...filter }: LeadFilter,
): LeadQuery {
  if (from !== undefined && to !== undefined && to < from)
    throw wrongField('to', 'The last day lies before the first.')
  return { ...filter, workspaceId, ...openSpanOfDays(zone, from, to ?? dayIn(zone, Date.now())) }
}
