import { join } from 'node:path'
import type { Response } from 'express'
import { symbolFileName } from '@flimbo/core/codes'
import { plainFileName } from '@flimbo/core/plan'
import {
  printApi,
  printOrder,
  PROOFS_MAX,
  sheetOrder,
  type PiecesOrder,
  type PrintOrder,
  type SheetOrder,
} from '@flimbo/core/print'
import type { Finish } from '@flimbo/core/symbol'
import { attach, missing, mount, wrongField, type Mounts } from '../api/index.ts'
import type { CodeSelection } from '../codes/index.ts'
import type { Config } from '../config/index.ts'
import { findAmong, tables, type CampaignRow, type Database } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import type { FileLibrary } from '../files/index.ts'
import type { Exporter, Jobs, JobViewer } from '../jobs/index.ts'
import type { Reader } from '../reader/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { limitedThread, type LimitedThread } from '../threads/index.ts'
import type { PrintPiece } from './draw.ts'
import { printFiles, type DrawCalls, type Listed } from './files.ts'
import { chosenCount, pieceMaker, type Chosen } from './pieces.ts'
import type { ProofCalls } from './proof-thread.ts'
import { brokenReleases } from './broken.ts'
import { proofing } from './proofs.ts'
import { sheetFiles } from './sheets.ts'
import { MEDIA_TYPES, releasing, type ReleaseOrder } from './releases.ts'

interface Parts {
  readonly config: Pick<Config, 'dataDir'>
  readonly database: Database
  readonly domains: Domains
  readonly files: FileLibrary
  readonly selection: CodeSelection
  readonly reviewer: Reader
  readonly live: LiveHub
  readonly jobs: Jobs
  readonly exporter: Exporter
  readonly jobView: JobViewer
  readonly printThreads: PrintThreads
}

/** The threads that draw and measure. */
export interface PrintThreads {
  readonly draw: LimitedThread<DrawCalls>
  readonly proof: LimitedThread<ProofCalls>
}

/** One piece that takes longer to draw, or to measure, is not waited for. */
const DRAW_MS = 60_000
/** A symbol of the largest version takes a minute: it has thirty times as many modules as a usual one. */
const PROOF_MS = 240_000

export function printThreads(): PrintThreads & { close(): Promise<void> } {
  const draw = limitedThread<DrawCalls>('print-thread', import.meta.url, DRAW_MS)
  const proof = limitedThread<ProofCalls>('proof-thread', import.meta.url, PROOF_MS)
  return {
    draw,
    proof,
    async close() {
      await draw.close()
      await proof.close()
    },
  }
}

/** What is stored of an order: the pieces are chosen when it is given, and drawn as they are when it is carried out. */
interface Stored {
  readonly campaignId: number
  readonly chosen: Chosen
  readonly order: Pick<PrintOrder, 'pattern' | 'finish'>
}

/** The same of an order of sheets. */
interface StoredSheets {
  readonly campaignId: number
  readonly chosen: Chosen
  readonly order: SheetOrder
}

/** The choice of a stored order; one that an earlier version stored names pieces alone. */
function storedChoice({
  campaignId,
  chosen,
  ids = [],
}: Pick<Stored, 'campaignId'> & Partial<Stored & Chosen>) {
  return { campaignId, chosen: chosen ?? { ids, staticIds: [] } }
}

/** The endpoints of print, as `core`’s contract describes them. */
export function printEndpoints(mounts: Mounts, parts: Parts): void {
  const { config, database, domains, selection, reviewer, exporter, jobs, jobView } = parts
  const { read } = database
  const pieces = pieceMaker(parts)
  const files = printFiles(parts.printThreads.draw)
  const proofs = proofing({ ...parts, pieces, thread: parts.printThreads.proof })
  const sheets = sheetFiles({ database, pieces, proofs, thread: parts.printThreads.draw })
  const releases = releasing({
    ...parts,
    pieces,
    printFiles: files,
    proofs,
    directory: join(config.dataDir, 'releases'),
  })
  void releases.tidy().catch(() => undefined)

  parts.files.usedBy(async (workspaceId) => {
    const rows = await read
      .createQueryBuilder(tables.codes, 'c')
      .innerJoin(tables.campaigns.options.name, 'm', 'm.id = c.campaignId')
      .where('m.workspaceId = :workspaceId AND c.placement IS NOT NULL', { workspaceId })
      .getMany()
    return rows.flatMap(({ id, name, placement }) =>
      placement ? [{ sum: placement.file, use: { by: 'piece' as const, id, name } }] : [],
    )
  })

  /** The pieces an order means, in the order of the list, and the static codes it names, by their names. */
  async function chosenBy(
    campaign: CampaignRow | null,
    { filter, ids, staticIds }: PiecesOrder,
  ): Promise<{ campaign: CampaignRow; chosen: Chosen }> {
    if (campaign === null) throw wrongField('filter.campaignId', 'Name the campaign whose pieces are meant.')
    const wanted = ids && new Set(ids)
    const all = wanted?.size === 0 ? [] : await selection.ids(campaign, filter)
    const statics = await findAmong(read, tables.staticCodes, 'id', staticIds, { campaignId: campaign.id })
    const chosen = {
      ids: wanted ? all.filter((id) => wanted.has(id)) : all,
      staticIds: statics.sort((a, b) => a.name.localeCompare(b.name) || a.id - b.id).map(({ id }) => id),
    }
    return { campaign, chosen }
  }
  async function readyPiece(workspaceId: number, id: number) {
    const [ready] = await pieces.of(workspaceId, await findAmong(read, tables.codes, 'id', [id]))
    if (!ready) throw missing('piece')
    return ready
  }

  async function readyStatic(workspaceId: number, id: number) {
    const [ready] = await pieces.ofStatic(workspaceId, await findAmong(read, tables.staticCodes, 'id', [id]))
    if (!ready) throw missing('static code')
    return ready
  }

  /** Pieces with what their files are named by. */
  async function* listed(campaign: CampaignRow, chosen: Chosen): AsyncGenerator<Listed> {
    for await (const ready of pieces.each(campaign.workspaceId, chosen)) {
      const fields = await pieces.fieldsOf(ready, campaign)
      if (fields) yield { piece: ready.piece, fields, styleName: ready.style?.name ?? '' }
    }
  }
  async function sendFile(piece: PrintPiece, slug: string, finish: Finish, response: Response) {
    const made = await files.drawn(piece, finish)
    if (!made.ok) throw wrongField(made.field, made.sentence)
    attach(response, MEDIA_TYPES[finish.format], symbolFileName({ name: piece.name, slug }, finish.format))
    response.set('Cache-Control', 'no-cache')
    response.end(made.bytes)
  }

  mount(mounts, printApi.file, async ({ params, query: { level, mm, ...finish }, who, response }) => {
    const { piece, fileSlug } = await readyPiece(who.workspace.id, params.id)
    const asked = { ...piece, level: level ?? piece.level, mm: mm ?? piece.mm }
    await sendFile(asked, fileSlug, finish, response)
  })

  mount(mounts, printApi.staticFile, async ({ params, query: finish, who, response }) => {
    const { piece, fileSlug } = await readyStatic(who.workspace.id, params.id)
    await sendFile(piece, fileSlug, finish, response)
  })

  exporter.define<Stored>({
    what: 'print.zip',
    type: 'application/zip',
    read(stored) {
      const { order, ...rest } = stored as Stored & Partial<Chosen>
      // What another version stored is completed by what is usual.
      const { pattern, finish } = printOrder.parse({ ...order, filter: {} })
      return { ...storedChoice(rest), order: { pattern, finish } }
    },
    nameOf: async ({ campaignId }) =>
      `${plainFileName((await read.findOneByOrFail(tables.campaigns, { id: campaignId })).name)} print files.zip`,
    async write(out, { campaignId, chosen, order }, advance) {
      const campaign = await read.findOneByOrFail(tables.campaigns, { id: campaignId })
      await files.zip(out, listed(campaign, chosen), chosenCount(chosen), order, advance)
    },
  })

  exporter.define<StoredSheets>({
    what: 'sheets.pdf',
    type: 'application/pdf',
    read(stored) {
      const { order, ...rest } = stored as StoredSheets & Partial<Chosen>
      return { ...storedChoice(rest), order: sheetOrder.parse(order) }
    },
    nameOf: async ({ campaignId, order }) => {
      const { name } = await read.findOneByOrFail(tables.campaigns, { id: campaignId })
      return `${plainFileName(name)} ${order.what === 'sheets' ? 'sheets' : 'proof sheet'}.pdf`
    },
    async write(out, { campaignId, chosen, order }, advance) {
      const campaign = await read.findOneByOrFail(tables.campaigns, { id: campaignId })
      await sheets.write(out, campaign, chosen, order, advance)
    },
  })

  mount(mounts, printApi.sheets, async ({ body, who, campaign: reached }) => {
    const { campaign, chosen } = await chosenBy(reached, body)
    if (chosenCount(chosen) === 0) throw wrongField('filter', 'There is no piece to print.')
    const tooMany = sheets.tooMany(body, chosenCount(chosen))
    if (tooMany !== null) throw wrongField('layout.copies', tooMany)
    const stored: StoredSheets = {
      campaignId: campaign.id,
      chosen,
      order: { ...body, ids: undefined, staticIds: [] },
    }
    const job = await exporter.order('sheets.pdf', stored, {
      workspaceId: who.workspace.id,
      personId: who.person.id,
      campaignId: campaign.id,
      title: `${body.what === 'sheets' ? 'Sheets' : 'Proof sheet'}: ${campaign.name}`,
    })
    return jobView.one(job, who)
  })

  mount(mounts, printApi.order, async ({ body: { pattern, finish, ...which }, who, campaign: reached }) => {
    const { campaign, chosen } = await chosenBy(reached, which)
    if (chosenCount(chosen) === 0) throw wrongField('filter', 'There is no piece to print.')
    const stored: Stored = { campaignId: campaign.id, chosen, order: { pattern, finish } }
    const job = await exporter.order('print.zip', stored, {
      workspaceId: who.workspace.id,
      personId: who.person.id,
      campaignId: campaign.id,
      title: `Print files: ${campaign.name}`,
    })
    return jobView.one(job, who)
  })

  mount(mounts, printApi.proofs, async ({ body, who, campaign: reached }) => {
    const { campaign, chosen } = await chosenBy(reached, body)
    const job = await proofs.run(chosen, {
      workspaceId: who.workspace.id,
      personId: who.person.id,
      campaignId: campaign.id,
      title: `Check before print: ${campaign.name}`,
    })
    return jobView.one(job, who)
  })

  mount(mounts, printApi.proof, async ({ params: { id }, who }) => ({
    proof: await proofs.of(await readyPiece(who.workspace.id, id)),
  }))

  mount(
    mounts,
    printApi.release,
    async ({ body: { filter, ids, staticIds, ...order }, who, campaign: reached }) => {
      const { campaign, chosen } = await chosenBy(reached, { filter, ids, staticIds })
      if (chosenCount(chosen) === 0) throw wrongField('filter', 'There is no piece to release.')
      if (chosenCount(chosen) > PROOFS_MAX)
        throw wrongField('filter', `At most ${PROOFS_MAX.toLocaleString('en')} pieces are released at once.`)
      const payload: ReleaseOrder = { ...chosen, ...order }
      const job = await jobs.add({
        kind: 'release',
        workspaceId: who.workspace.id,
        personId: who.person.id,
        campaignId: campaign.id,
        title: `Release for print: ${campaign.name}`,
        payload,
      })
      return jobView.one(job, who)
    },
  )

  mount(mounts, printApi.releases, async ({ params: { id } }) => ({
    rows: await releases.of({ codeId: id }),
  }))

  mount(mounts, printApi.staticReleases, async ({ params: { id } }) => ({
    rows: await releases.of({ staticCodeId: id }),
  }))

  mount(mounts, printApi.releasedFile, ({ params: { id, sum }, response }) =>
    releases.send(id, sum, response),
  )

  mount(mounts, printApi.broken, ({ who }) => brokenReleases(database, who.workspace.id))

  mount(mounts, printApi.summary, async ({ params: { id } }) => ({
    counts: await reviewer.ask('printCounts', id, domains.originsById()),
  }))
}
