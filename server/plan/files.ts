import type { Writable } from 'node:stream'
import { fileColumns, writeTable, type PlanFile } from '@flimbo/core/plan'
import { writeTo } from '../api/index.ts'
import type { CodeSelection } from '../codes/index.ts'
import type { CampaignRow } from '../database/index.ts'
import type { Advance } from '../jobs/index.ts'
import { cellOf, exportColumns, exported, LINK_HEADINGS, linkRows, planRow } from './rows.ts'
import type { WorldParts } from './world.ts'

export interface FileParts extends WorldParts {
  readonly selection: CodeSelection
}

type Order<W extends PlanFile['what']> = Extract<PlanFile, { what: W }>

const BOM = '\ufeff'
/** Rows written between two looks at whether the other side keeps up. */
const BATCH = 500

/** Writes a campaign's plan and its links as files, into an answer or into a file of a job. */
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
  }
}
