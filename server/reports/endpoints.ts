import type { EntityManager } from 'typeorm'
import {
  readStoredReport,
  reportFileName,
  reportsApi,
  dataOf,
  REPORT_FILES,
  REPORT_FILE_NAMES,
  type Report,
} from '@flimbo/core/reports'
import { dayIn } from '@flimbo/core/time'
import { missing, mount, overtaken, wrongField, writeTo, type Mounts } from '../api/index.ts'
import {
  findAmong,
  insertedId,
  peopleNames,
  tables,
  type Database,
  type ReportRow,
  type WorkspaceRow,
} from '../database/index.ts'
import type { Exporter, JobViewer } from '../jobs/index.ts'
import { FILE_ENDINGS, FILE_TYPES, type ReportDrawing } from './drawing.ts'
import type { MakeReport } from './make.ts'
import { SHARED_FONTS_PATH } from './shared.ts'
import { checkScopes, scopeOfReport } from './scopes.ts'

/** A workspace has no more reports than people can tell apart. */
const REPORTS_MAX = 500

interface Parts {
  readonly database: Database
  readonly exporter: Exporter
  readonly jobView: JobViewer
  readonly makeReport: MakeReport
  readonly reportDrawing: ReportDrawing
}

/** How many of some rows each report has. */
async function countsOf(
  read: EntityManager,
  what: 'reportLinks' | 'reportMailings',
  ids: readonly number[],
  condition: string,
  values: Record<string, unknown> = {},
): Promise<Map<number, number>> {
  const rows = await read
    .createQueryBuilder(tables[what], 't')
    .select('t.reportId', 'reportId')
    .addSelect('count(*)', 'count')
    .where(`t.reportId IN (:...ids) AND ${condition}`, { ids: [0, ...ids], ...values })
    .groupBy('t.reportId')
    .getRawMany<{ reportId: number; count: number }>()
  return new Map(rows.map(({ reportId, count }) => [reportId, count]))
}

/** The endpoints of reports, as `core`’s contract describes them. */
export function reportsEndpoints(
  mounts: Mounts,
  { database, exporter, jobView, makeReport, reportDrawing }: Parts,
): void {
  const { read } = database

  async function viewed(rows: readonly ReportRow[], workspace: WorkspaceRow): Promise<Report[]> {
    const ids = rows.map(({ id }) => id)
    const nameOf = await peopleNames(
      read,
      rows.map(({ personId }) => personId),
    )
    const links = await countsOf(read, 'reportLinks', ids, 't.endsAt > :now', { now: Date.now() })
    const mailings = await countsOf(read, 'reportMailings', ids, 't.nextAt IS NOT NULL')
    const campaigns = await findAmong(
      read,
      tables.campaigns,
      'id',
      rows.flatMap(({ campaignId }) => campaignId ?? []),
    )
    const campaignOf = new Map(campaigns.map((each) => [each.id, each]))
    const clients = await findAmong(
      read,
      tables.clients,
      'id',
      rows.flatMap(({ clientId }) => clientId ?? []),
    )
    const clientOf = new Map(clients.map((each) => [each.id, each.name]))
    return rows.map(({ id, content, clientId, campaignId, version, personId, createdAt, changedAt }) => {
      const campaign = campaignId === null ? undefined : campaignOf.get(campaignId)
      return {
        ...{ id, content: readStoredReport(content), version, createdAt, changedAt },
        of: campaign?.name ?? (clientId === null ? workspace.name : (clientOf.get(clientId) ?? '')),
        zone: campaign?.zone ?? workspace.zone,
        by: nameOf(personId),
        links: links.get(id) ?? 0,
        mailings: mailings.get(id) ?? 0,
      }
    })
  }
  async function view(id: number, workspace: WorkspaceRow): Promise<Report> {
    const [report] = await viewed(await read.findBy(tables.reports, { id }), workspace)
    if (!report) throw missing('report')
    return report
  }

  mount(mounts, reportsApi.list, async ({ query: { clientId, campaignId }, who }) => {
    const rows = read
      .createQueryBuilder(tables.reports, 'r')
      .leftJoin(tables.campaigns.options.name, 'c', 'c.id = r.campaignId')
      .where('r.workspaceId = :workspaceId', { workspaceId: who.workspace.id })
    if (campaignId !== undefined) rows.andWhere('r.campaignId = :campaignId', { campaignId })
    if (clientId !== undefined)
      rows.andWhere('(r.clientId = :clientId OR c.clientId = :clientId)', { clientId })
    return { rows: await viewed(await rows.orderBy('r.name').addOrderBy('r.id').getMany(), who.workspace) }
  })

  mount(mounts, reportsApi.create, async ({ body, who }) => {
    const { workspace, person } = who
    await checkScopes(read, workspace.id, body)
    const now = Date.now()
    const { name, clientId, campaignId } = body
    const id = await database.write(async (manager) => {
      if ((await manager.countBy(tables.reports, { workspaceId: workspace.id })) >= REPORTS_MAX)
        throw wrongField('name', `There are ${String(REPORTS_MAX)} reports already. Delete one first.`)
      const row = { workspaceId: workspace.id, name, clientId, campaignId, version: 1, personId: person.id }
      return insertedId(
        await manager.insert(tables.reports, {
          ...row,
          content: body as never,
          createdAt: now,
          changedAt: now,
        }),
      )
    })
    return view(id, workspace)
  })

  mount(mounts, reportsApi.get, ({ params: { id }, who }) => view(id, who.workspace))

  mount(mounts, reportsApi.change, async ({ params: { id }, body: { version, content }, who }) => {
    await checkScopes(read, who.workspace.id, content)
    const { name, clientId, campaignId } = content
    await database.write(async (manager) => {
      const row = await manager.findOneByOrFail(tables.reports, { id })
      if (row.version !== version) throw overtaken('report', await view(id, who.workspace))
      await manager.update(
        tables.reports,
        { id },
        {
          name,
          clientId,
          campaignId,
          content,
          version: version + 1,
          changedAt: Date.now(),
        },
      )
    })
    return view(id, who.workspace)
  })

  mount(mounts, reportsApi.remove, async ({ params: { id } }) => {
    await database.write((manager) => manager.delete(tables.reports, { id }))
  })

  mount(mounts, reportsApi.data, async ({ params: { id }, who }) => {
    const { content } = await view(id, who.workspace)
    return dataOf(await makeReport(who.workspace, content, Date.now()))
  })

  mount(mounts, reportsApi.page, async ({ body, who }) => {
    const made = await makeReport(who.workspace, body, Date.now())
    const order = { nonce: '', fonts: SHARED_FONTS_PATH, before: '' }
    return { markup: await reportDrawing.page(who.workspace.id, made, order) }
  })

  /** A file of a report, as it was ordered. */
  interface Order {
    readonly workspaceId: number
    readonly reportId: number
    readonly at: number
  }
  for (const file of REPORT_FILES)
    exporter.define<Order>({
      what: `report.${file}`,
      type: FILE_TYPES[file],
      // Only this room orders them.
      read: (stored) => stored as Order,
      async nameOf({ workspaceId, reportId, at }) {
        const { name, content } = await read.findOneByOrFail(tables.reports, { id: reportId })
        const scope = await scopeOfReport(read, workspaceId, content)
        return reportFileName({ name }, dayIn(scope?.campaign?.zone ?? 'UTC', at), FILE_ENDINGS[file])
      },
      async write(out, { workspaceId, reportId, at }, advance) {
        const workspace = await read.findOneByOrFail(tables.workspaces, { id: workspaceId })
        const { content } = await view(reportId, workspace)
        advance(0, 2)
        const made = await makeReport(workspace, content, at)
        advance(1, 2)
        await writeTo(out, Buffer.from(await reportDrawing.file(workspaceId, made, file)))
        advance(2, 2)
      },
    })

  mount(mounts, reportsApi.makeFile, async ({ params: { id }, body: { file }, who }) => {
    const { workspace, person } = who
    const { content } = await view(id, workspace)
    const order: Order = { workspaceId: workspace.id, reportId: id, at: Date.now() }
    const job = await exporter.order(`report.${file}`, order, {
      workspaceId: workspace.id,
      personId: person.id,
      campaignId: content.campaignId,
      title: `${content.name}: ${REPORT_FILE_NAMES[file]}`,
    })
    return jobView.one(job, who)
  })
}
