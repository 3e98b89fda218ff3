import type { LeadFilter } from '@flimbo/core/leads'
import { dayIn, spanOfDays } from '@flimbo/core/time'
import { wrongField } from '../api/index.ts'
import type { LeadQuery } from './queries.ts'

const EARLIEST = '1970-01-01'

/** Which leads are meant; days are those of the campaign, or of the workspace. */
export function leadQueryOf(
  workspaceId: number,
  zone: string,
  { from, to, ...filter }: LeadFilter,
): LeadQuery {
  if (from !== undefined && to !== undefined && to < from)
    throw wrongField('to', 'The last day lies before the first.')
  const span = spanOfDays(zone, from ?? EARLIEST, to ?? dayIn(zone, Date.now()))
  return { ...filter, workspaceId, start: span.start, end: span.end }
}
