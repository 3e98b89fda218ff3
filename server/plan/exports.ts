import type { Writable } from 'node:stream'
import type { Response } from 'express'
import { plainFileName, planApi, planFile, type PlanFile } from '@flimbo/core/plan'
import { attach, mount, wrongField, type Mounts } from '../api/index.ts'
import { tables, type CampaignRow } from '../database/index.ts'
import type { Advance, Exporter, JobViewer } from '../jobs/index.ts'
import { planFiles, type FileParts } from './files.ts'

export interface ExportParts extends FileParts {
  readonly exporter: Exporter
  readonly jobView: JobViewer
}

const CSV = 'text/csv; charset=utf-8; header=present'
const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
const TITLES: Readonly<Record<PlanFile['what'], string>> = {
  'plan.csv': 'The plan as CSV',
  'plan.xlsx': 'The plan as XLSX',
  'links.csv': 'All short links as CSV',
}

/** Whoever waits for an answer sees how much of it has come. */
const silently: Advance = () => undefined

/** Plans and links as files: at once, or made by a job. */
export function exportEndpoints(mounts: Mounts, parts: ExportParts): void {
  const { database, exporter, jobView } = parts
  const { read } = database
  const files = planFiles(parts)

  /** Answers with a file; one that cannot be made is refused before anything of it is sent. */
  async function send(
    response: Response,
    type: string,
    name: string,
    write: () => Promise<void>,
  ): Promise<void> {
    attach(response, type, name)
    await write()
    response.end()
  }
  const all = (workspaceId: number) =>
    read.find(tables.campaigns, { where: { workspaceId }, order: { id: 'asc' } })

  mount(mounts, planApi.csv, ({ query: filter, campaign, response }) =>
    send(response, CSV, `${plainFileName(campaign.name)}.csv`, () =>
      files.csv(response, campaign, { filter }, silently),
    ),
  )
  mount(mounts, planApi.xlsx, ({ query: filter, campaign, response }) =>
    send(response, XLSX, `${plainFileName(campaign.name)}.xlsx`, () =>
      files.xlsx(response, campaign, { filter }, silently),
    ),
  )
  mount(mounts, planApi.links, async ({ query: filter, who, campaign, response }) => {
    const campaigns = campaign === null ? await all(who.workspace.id) : [campaign]
    await send(response, CSV, 'short-links.csv', () => files.links(response, campaigns, { filter }, silently))
  })
  /** What a job is to make: of one campaign, or of all of a workspace, as they are called and tagged when it is made. */
  interface Stored<F extends PlanFile> {
    readonly workspaceId: number
    readonly campaignId: number | null
    readonly file: F
  }
  type FileOf<W extends PlanFile['what']> = Extract<PlanFile, { what: W }>

  async function campaignsOf({ workspaceId, campaignId }: Stored<PlanFile>): Promise<CampaignRow[]> {
    return campaignId === null
      ? all(workspaceId)
      : [await read.findOneByOrFail(tables.campaigns, { id: campaignId })]
  }

  function define<W extends PlanFile['what']>(
    what: W,
    type: string,
    nameOf: (campaign: string) => string,
    write: (
      out: Writable,
      campaigns: readonly CampaignRow[],
      file: FileOf<W>,
      advance: Advance,
    ) => Promise<void>,
  ): void {
    exporter.define<Stored<FileOf<W>>>({
      what,
      type,
      read(stored) {
        // It was ordered by its name, which is that of its schema.
        const { file, ...of } = stored as Stored<FileOf<W>>
        return { ...of, file: planFile.parse(file) as FileOf<W> }
      },
      nameOf: async (stored) => nameOf(plainFileName((await campaignsOf(stored))[0]?.name ?? '')),
      write: async (out, stored, advance) => write(out, await campaignsOf(stored), stored.file, advance),
    })
  }
  function only([campaign]: readonly CampaignRow[]): CampaignRow {
    if (!campaign) throw wrongField('campaignId', 'Name the campaign.')
    return campaign
  }
  define(
    'plan.csv',
    CSV,
    (name) => `${name}.csv`,
    (out, campaigns, file, advance) => files.csv(out, only(campaigns), file, advance),
  )
  define(
    'plan.xlsx',
    XLSX,
    (name) => `${name}.xlsx`,
    (out, campaigns, file, advance) => files.xlsx(out, only(campaigns), file, advance),
  )
  define(
    'links.csv',
    CSV,
    () => 'short-links.csv',
    (out, campaigns, file, advance) => files.links(out, campaigns, file, advance),
  )
  mount(mounts, planApi.makeFile, async ({ body: file, who, campaign }) => {
    if (campaign === null && file.what !== 'links.csv')
      throw wrongField('filter.campaignId', 'Name the campaign whose file is wanted.')
    const workspaceId = who.workspace.id
    const order: Stored<PlanFile> = { workspaceId, campaignId: campaign?.id ?? null, file }
    const called = TITLES[file.what]
    const title = campaign ? `${called}: ${campaign.name}` : called
    const made = await exporter.order(file.what, order, {
      workspaceId,
      personId: who.person.id,
      campaignId: campaign?.id ?? null,
      title,
    })
    return jobView.one(made, who)
  })
}
