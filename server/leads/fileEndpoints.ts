import { leadFileLook, leadsApi, type LeadFileLook } from '@flimbo/core/leads'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { tables, type Database } from '../database/index.ts'
import type { Exporter, JobViewer } from '../jobs/index.ts'
import type { Reader } from '../reader/index.ts'
import { readSetting } from '../workspace/index.ts'
import { importLeads } from './importLeads.ts'
import { writeCsv, writeSheet } from './leadFiles.ts'
import { leadQueryOf } from './leadQuery.ts'
import { leadTable } from './leadTable.ts'
import type { LeadQuery } from './queries.ts'
import { LEAD_STATES } from './stateEndpoints.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly exporter: Exporter
  readonly jobView: JobViewer
  readonly tell: (workspaceId: number, campaignIds: Iterable<number>) => void
}

/** A file of leads that somebody wants. */
interface LeadFileOrder {
  readonly query: LeadQuery
  readonly look: LeadFileLook
}
const FORMATS = {
  csv: { type: 'text/csv; charset=utf-8; header=present', write: writeCsv },
  xlsx: {
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    write: writeSheet,
  },
} as const

/** What files of leads are called. */
export const LEAD_FILES = ['leads.csv', 'leads.xlsx'] as const

/** The endpoints of leads as files: out of the inbox, and into it. */
export function leadFileEndpoints(
  mounts: Mounts,
  { database, reader, exporter, jobView, tell }: Parts,
): void {
  const { read } = database

  mount(
    mounts,
    leadsApi.importAnswers,
    async ({ body: { pageId, part, codeId, campaignId, lines }, who, campaign }) => {
      const [page, code] = await Promise.all([
        read.findOneBy(tables.pages, { id: pageId, campaignId }),
        read.findOneBy(tables.codes, { id: codeId, campaignId }),
      ])
      const form = page?.live?.parts.find(({ id }) => id === part)
      if (!page?.live || form?.kind !== 'form')
        throw wrongField('part', 'This form is not on its page any more. Choose another.')
      if (!code) throw wrongField('codeId', 'This piece is not in the campaign any more. Choose another.')
      const outcome = await importLeads(
        database,
        {
          workspaceId: who.workspace.id,
          workspaceZone: who.workspace.zone,
          page,
          part,
          form,
          languages: page.live.languages,
          code,
          utmCampaign: campaign.utmCampaign,
        },
        lines,
      )
      tell(who.workspace.id, [campaignId])
      return outcome
    },
  )

  for (const format of ['csv', 'xlsx'] as const)
    exporter.define<LeadFileOrder>({
      what: `leads.${format}`,
      type: FORMATS[format].type,
      // It was an order when it was stored.
      read: (stored) => stored as LeadFileOrder,
      nameOf: () => Promise.resolve(`leads.${format}`),
      async write(out, { query, look }, advance) {
        const { states } = (await readSetting(read, query.workspaceId, LEAD_STATES)).value
        const nameOf = (state: string) => states.find(({ key }) => key === state)?.name ?? state
        await FORMATS[format].write(out, leadTable({ database, reader, nameOf }, query, look), (done) => {
          advance(done, 0)
        })
      },
    })
  mount(mounts, leadsApi.makeFile, async ({ body: { look, ...filter }, who, campaign }) => {
    const { workspace, person } = who
    const query = leadQueryOf(workspace.id, campaign?.zone ?? workspace.zone, filter)
    const whole = leadFileLook.parse(look ?? {})
    const order: LeadFileOrder = { query, look: whole }
    const job = await exporter.order(`leads.${whole.format}`, order, {
      workspaceId: workspace.id,
      personId: person.id,
      campaignId: campaign?.id ?? null,
      title: `Leads as ${whole.format.toUpperCase()}${campaign ? `: ${campaign.name}` : ''}`,
    })
    return jobView.one(job, who)
  })
}
