import { once } from 'node:events'
import type { Writable } from 'node:stream'
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import { contentOf } from '@flimbo/core/codes'
import { fileColumns, fileNamer, writeTable, type PlanFile } from '@flimbo/core/plan'
import { encode, RasterTooLarge, sceneSvg, symbolScene } from '@flimbo/core/symbol'
import { wrongField, writeTo } from '../api/index.ts'
import type { CodeSelection } from '../codes/index.ts'
import type { CampaignRow } from '../database/index.ts'
import type { Advance } from '../jobs/index.ts'
import { scenePng } from '../symbol/index.ts'
import { taggedPiece } from '../tagging/index.ts'
import { cellOf, exportColumns, exported, LINK_HEADINGS, linkRows, planRow } from './rows.ts'
import type { WorldParts } from './world.ts'

export interface FileParts extends WorldParts {
  readonly selection: CodeSelection
}

type Order<W extends PlanFile['what']> = Extract<PlanFile, { what: W }>

const BOM = '\ufeff'
/** Rows written between two looks at whether the other side keeps up. */
const BATCH = 500

/** Writes a campaign's plan, its links and its symbols as files, into an answer or into a file of a job. */
export function planFiles(parts: FileParts) {
  const { domains, selection, tagging } = parts
  const columnsOf = async ({ workspaceId }: CampaignRow) =>
    exportColumns(fileColumns((await tagging.rulesOf(workspaceId)).parameters))

  return {
    async csv(
      out: Writable,
      campaign: CampaignRow,
      { filter }: Pick<Order<'plan.csv'>, 'filter'>,
      advance: Advance,
    ) {
      const ids = await selection.ids(campaign, filter)
      const columns = await columnsOf(campaign)
      let rows = [columns.map(({ title }) => title)]
      let done = 0
      out.write(BOM)
      for await (const each of exported(parts, ids)) {
        if (out.destroyed) return
        advance(done++, ids.length)
        const row = planRow(each)
        rows.push(columns.map((column) => cellOf(column, row)))
        if (rows.length >= BATCH) {
          await writeTo(out, `${writeTable(rows)}\r\n`)
          rows = []
        }
      }
      if (rows.length > 0) await writeTo(out, `${writeTable(rows)}\r\n`)
    },

    async xlsx(
      out: Writable,
      campaign: CampaignRow,
      { filter }: Pick<Order<'plan.xlsx'>, 'filter'>,
      advance: Advance,
    ) {
      const ids = await selection.ids(campaign, filter)
      const columns = await columnsOf(campaign)
      // Loaded by whoever first asks for a workbook: it would make every start of the office a third longer.
      const { default: ExcelJS } = await import('exceljs')
      const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: out })
      const sheet = workbook.addWorksheet('Plan', { views: [{ state: 'frozen', ySplit: 1 }] })
      sheet.columns = columns.map(({ title, id }) => ({
        header: title,
        width: id === 'name' || id === 'destination' ? 40 : 16,
      }))
      sheet.getRow(1).font = { bold: true }
      let done = 0
      for await (const each of exported(parts, ids)) {
        if (out.destroyed) return
        advance(done++, ids.length)
        const row = planRow(each)
        // Text cells of a workbook are never run, so nothing is put before them.
        const cells = columns.map((column) => {
          const text = column.write(row)
          if (text === '') return null
          return column.numeric ? Number(text) : text
        })
        sheet.addRow(cells).commit()
      }
      await workbook.commit()
    },

    async links(
      out: Writable,
      campaigns: readonly CampaignRow[],
      { filter: { shown = 'all', ...filter } }: Pick<Order<'links.csv'>, 'filter'>,
      advance: Advance,
    ) {
      out.write(`${BOM}${writeTable([LINK_HEADINGS])}\r\n`)
      for (const campaign of campaigns) {
        const ids = await selection.ids(campaign, { ...filter, shown })
        let done = 0
        for await (const each of exported(parts, ids)) {
          if (out.destroyed) return
          advance(done++, ids.length)
          await writeTo(out, `${writeTable(linkRows(each, (id) => domains.origin(id)))}\r\n`)
        }
      }
    },

    /** @throws Refusal where there is nothing to make a symbol of: nothing is written then */
    async symbols(
      out: Writable,
      campaign: CampaignRow,
      { filter, pattern, format, dpi }: Omit<Order<'symbols.zip'>, 'what'>,
      advance: Advance,
    ) {
      const ids = await selection.ids(campaign, filter)
      if (ids.length === 0) throw wrongField('campaignId', 'There is no piece to make a symbol of.')
      const nameOf = fileNamer(pattern, format)
      const digits = String(ids.length).length
      let full = false
      const zip = new Zip((error, part) => {
        if (error) out.destroy(error)
        else if (!out.write(part)) full = true
      })
      const add = (file: ZipDeflate | ZipPassThrough, content: Uint8Array) => {
        zip.add(file)
        file.push(content, true)
      }
      let n = 0
      const leftOut: string[] = []
      for await (const { row, route } of exported(parts, ids)) {
        if (out.destroyed) return
        advance(n++, ids.length)
        const carried = contentOf({ origin: domains.origin(row.domainId), slug: row.slug })
        const scene = symbolScene(encode(carried, row.level), row.sizeMm, row.name)
        let content: Uint8Array
        try {
          content = format === 'svg' ? new TextEncoder().encode(sceneSvg(scene)) : await scenePng(scene, dpi)
        } catch (error) {
          if (!(error instanceof RasterTooLarge)) throw error
          // One piece that is too large for a picture keeps nobody from the others.
          leftOut.push(`${row.name} (${row.slug}): ${error.message}`)
          continue
        }
        const tagged = taggedPiece(row, route, campaign.utmCampaign)
        const name = nameOf({ ...tagged, n: String(n).padStart(digits, '0') })
        add(format === 'svg' ? new ZipDeflate(name) : new ZipPassThrough(name), content)
        if (full) {
          full = false
          if (!out.destroyed) await Promise.race([once(out, 'drain'), once(out, 'close')])
        }
      }
      if (leftOut.length === n)
        throw wrongField('dpi', leftOut[0] ?? 'There is no piece to make a symbol of.')
      if (leftOut.length > 0)
        add(new ZipDeflate('left out.txt'), new TextEncoder().encode(`${leftOut.join('\r\n')}\r\n`))
      zip.end()
    },
  }
}
