import { reportsApi, type ReportLink } from '@flimbo/core/reports'
import { openSpanOfDays } from '@flimbo/core/time'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { insertedId, peopleNames, tables, type Database, type ReportLinkRow } from '../database/index.ts'
import type { Addresses } from '../line/index.ts'
import { hashPassword } from '../workspace/index.ts'
import type { ReportLinks } from './links.ts'
import { scopeOfReport } from './scopes.ts'

/** A report has no more links than people can keep an eye on. */
const LINKS_MAX = 50

interface Parts {
  readonly database: Database
  readonly addresses: Addresses
  readonly reportLinks: ReportLinks
}

/** The endpoints of read-only links to reports. */
export function reportLinkEndpoints(mounts: Mounts, { database, addresses, reportLinks }: Parts): void {
  const { read } = database

  async function viewed(rows: readonly ReportLinkRow[]): Promise<ReportLink[]> {
    const nameOf = await peopleNames(
      read,
      rows.map(({ personId }) => personId),
    )
    return rows.map(({ id, until, endsAt, passwordHash, personId, createdAt, opened, openedAt }) => ({
      ...{ id, until, createdAt, opened, openedAt },
      address: addresses.office + reportLinks.pathOf(id),
      isOver: endsAt <= Date.now(),
      hasPassword: passwordHash !== '',
      by: nameOf(personId),
    }))
  }

  mount(mounts, reportsApi.links, async ({ params: { id } }) => ({
    rows: await viewed(
      await read.find(tables.reportLinks, { where: { reportId: id }, order: { id: 'DESC' } }),
    ),
  }))

  mount(mounts, reportsApi.addLink, async ({ params: { id }, body: { until, password }, who }) => {
    const report = await read.findOneByOrFail(tables.reports, { id })
    const scope = await scopeOfReport(read, who.workspace.id, report)
    const endsAt = openSpanOfDays(scope?.campaign?.zone ?? who.workspace.zone, undefined, until).end
    const now = Date.now()
    if (endsAt <= now) throw wrongField('until', 'This day is over. Choose a later one.')
    const passwordHash = password === null ? '' : await hashPassword(password)
    const row = {
      ...{ workspaceId: who.workspace.id, reportId: id, until, endsAt, passwordHash },
      ...{ personId: who.person.id, createdAt: now, opened: 0, openedAt: null },
    }
    const linkId = await database.write(async (manager) => {
      if ((await manager.countBy(tables.reportLinks, { reportId: id })) >= LINKS_MAX)
        throw wrongField(
          'until',
          `There are ${String(LINKS_MAX)} links to this report. Delete those that are not needed.`,
        )
      return insertedId(await manager.insert(tables.reportLinks, row))
    })
    const [link] = await viewed([{ ...row, id: linkId }])
    if (!link) throw new Error('A link that was just made has a view')
    return link
  })

  mount(mounts, reportsApi.removeLink, async ({ params: { id } }) => {
    await database.write((manager) => manager.delete(tables.reportLinks, { id }))
  })
}
