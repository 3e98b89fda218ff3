import { leadsApi, type LeadNumbers, type NumbersBy } from '@flimbo/core/leads'
import { openSpanOfDays } from '@flimbo/core/time'
import type { EntityManager } from 'typeorm'
import { mount, type Mounts } from '../api/index.ts'
import { findAmong, tables } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import type { shownForms } from './formOf.ts'
import { leadQueryOf } from './leadQuery.ts'

interface Parts {
  readonly read: EntityManager
  readonly reader: Reader
  /** Another reading thread, for what takes long. */
  readonly reviewer: Reader
  readonly formOf: ReturnType<typeof shownForms>
}

/** The endpoints of what was answered, in numbers. */
export function leadNumberEndpoints(mounts: Mounts, { read, reader, reviewer, formOf }: Parts): void {
  /** Groups by the names of what they are of. */
  async function named(groups: LeadNumbers['groups'], by: NumbersBy | undefined) {
    if (by !== 'piece') return groups
    const codes = await findAmong(
      read,
      tables.codes,
      'id',
      groups.map(({ key }) => Number(key)),
    )
    const nameOf = new Map(codes.map(({ id, name }) => [String(id), name]))
    return groups.map((group) => ({ ...group, name: nameOf.get(group.key) ?? '' }))
  }

  mount(mounts, leadsApi.forms, async ({ query: { campaignId } }) => ({
    rows: await reader.ask('answeredForms', campaignId),
  }))

  mount(mounts, leadsApi.numbers, async ({ query: { part, by, ...filter }, who, campaign }) => {
    const zone = campaign?.zone ?? who.workspace.zone
    const query = leadQueryOf(who.workspace.id, zone, filter)
    const forms = await reader.ask('leadForms', query)
    const shownLast = forms.find((each) => each.pageId === filter.pageId && each.part === part)
    const form = shownLast ? await formOf(shownLast.pageRevisionId, part) : null
    const { questions, languages } = form ?? { questions: [], languages: [] }
    // Other figures do not wait while thousands of answers are counted.
    const numbers = await reviewer.ask('leadNumbers', query, { part, questions, languages }, by, zone)
    return { ...numbers, groups: await named(numbers.groups, by) }
  })

  mount(mounts, leadsApi.variants, async ({ params: { id }, query: { from, to }, campaign }) => {
    const { start, end } = openSpanOfDays(campaign.zone, from, to)
    return { rows: await reader.ask('leadsByVariant', id, start, end) }
  })

  mount(mounts, leadsApi.fresh, async ({ who }) => ({
    rows: await reader.ask('freshLeads', who.workspace.id),
  }))
}
