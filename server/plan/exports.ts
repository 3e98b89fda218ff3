import { once } from 'node:events'
import type { Response } from 'express'
import ExcelJS from 'exceljs'
import { Zip, ZipDeflate, ZipPassThrough } from 'fflate'
import { printedLink } from '@flimbo/core/codes'
import { fileColumns, fileNamer, plainFileName, planApi, writeTable } from '@flimbo/core/plan'
import { encode, RasterTooLarge, symbolSvg } from '@flimbo/core/symbol'
import { mount, wrongField, writeTo, type Mounts } from '../api/index.ts'
import type { CodeSelection } from '../codes/index.ts'
import { tables } from '../database/index.ts'
import { symbolPng } from '../symbol/index.ts'
import { taggedPiece } from '../tagging/index.ts'
import { cellOf, exportColumns, exported, LINK_HEADINGS, linkRows, planRow } from './rows.ts'
import type { WorldParts } from './world.ts'

export interface ExportParts extends WorldParts {
  readonly selection: CodeSelection
}

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
const BOM = '\ufeff'
/** Rows written between two looks at whether the other side keeps up. */
const BATCH = 500

function attach(response: Response, type: string, name: string): void {
  // RFC 6266 with RFC 8187: the plain name for those that know no other, the real one beside it.
  const plain = name.replace(/[^\x20-\x7e]|["\\%]/g, '_')
  response.set({
    'Content-Type': type,
    'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name).replace(/['()*]/g, (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`)}`,
  })
}

/** Plans, links and symbols as files. */
export function exportEndpoints(mounts: Mounts, parts: ExportParts): void {
  const { database, domains, selection, tagging } = parts

  const columnsOf = async (workspaceId: number) =>
    exportColumns(fileColumns((await tagging.rulesOf(workspaceId)).parameters))

  mount(mounts, planApi.csv, async ({ query, who, campaign, response }) => {
    const ids = await selection.ids(campaign, query)
    const columns = await columnsOf(who.workspace.id)
    attach(response, 'text/csv; charset=utf-8; header=present', `${plainFileName(campaign.name)}.csv`)
    let rows = [columns.map(({ title }) => title)]
    response.write(BOM)
    for await (const each of exported(parts, ids)) {
      if (response.destroyed) return undefined
      const row = planRow(each)
      rows.push(columns.map((column) => cellOf(column, row)))
      if (rows.length >= BATCH) {
        await writeTo(response, `${writeTable(rows)}\r\n`)
        rows = []
      }
    }
    response.end(rows.length > 0 ? `${writeTable(rows)}\r\n` : '')
    return undefined
  })

  mount(mounts, planApi.xlsx, async ({ query, who, campaign, response }) => {
    const ids = await selection.ids(campaign, query)
    const columns = await columnsOf(who.workspace.id)
    attach(response, XLSX, `${plainFileName(campaign.name)}.xlsx`)
    const workbook = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: response })
    const sheet = workbook.addWorksheet('Plan', { views: [{ state: 'frozen', ySplit: 1 }] })
    sheet.columns = columns.map(({ title, id }) => ({
      header: title,
      width: id === 'name' || id === 'destination' ? 40 : 16,
    }))
    sheet.getRow(1).font = { bold: true }
    for await (const each of exported(parts, ids)) {
      if (response.destroyed) return undefined
      const row = planRow(each)
      // Text cells of a workbook are never run, so nothing is put before them.
      sheet
        .addRow(
          columns.map((column) => {
            const text = column.write(row)
            if (text === '') return null
            return column.numeric ? Number(text) : text
          }),
        )
        .commit()
    }
    await workbook.commit()
    return undefined
  })

  mount(
    mounts,
    planApi.links,
    async ({ query: { shown = 'all', ...filter }, who, campaign: named, response }) => {
      const campaigns =
        named === null
          ? await database.read.find(tables.campaigns, {
              where: { workspaceId: who.workspace.id },
              order: { id: 'asc' },
            })
          : [named]
      attach(response, 'text/csv; charset=utf-8; header=present', 'short-links.csv')
      response.write(`${BOM}${writeTable([LINK_HEADINGS])}\r\n`)
      for (const campaign of campaigns) {
        for await (const each of exported(parts, await selection.ids(campaign, { ...filter, shown }))) {
          if (response.destroyed) return undefined
          await writeTo(response, `${writeTable(linkRows(each, (id) => domains.origin(id)))}\r\n`)
        }
      }
      response.end()
      return undefined
    },
  )

  mount(
    mounts,
    planApi.symbols,
    async ({ query: { pattern, format, dpi, ...filter }, campaign, response }) => {
      const ids = await selection.ids(campaign, filter)
      if (ids.length === 0) throw wrongField('campaignId', 'There is no piece to make a symbol of.')
      const nameOf = fileNamer(pattern, format)
      const digits = String(ids.length).length
      let full = false
      const zip = new Zip((error, part, last) => {
        if (error) response.destroy(error)
        else if (!response.write(part)) full = true
        if (last) response.end()
      })
      let n = 0
      const leftOut: string[] = []
      for await (const { row, route } of exported(parts, ids)) {
        if (response.destroyed) return undefined
        n++
        const symbol = encode(printedLink(domains.origin(row.domainId), row.slug), row.level)
        let content: Uint8Array
        try {
          content =
            format === 'svg'
              ? new TextEncoder().encode(symbolSvg(symbol, row.sizeMm, row.name))
              : await symbolPng(symbol, row.sizeMm, dpi)
        } catch (error) {
          if (!(error instanceof RasterTooLarge)) throw error
          // One piece that is too large for a picture keeps nobody from the others.
          leftOut.push(`${row.name} (${row.slug}): ${error.message}`)
          continue
        }
        if (!response.headersSent)
          attach(response, 'application/zip', `${plainFileName(campaign.name)} symbols.zip`)
        const name = nameOf({
          ...taggedPiece(row, route, campaign.utmCampaign),
          n: String(n).padStart(digits, '0'),
        })
        const file = format === 'svg' ? new ZipDeflate(name) : new ZipPassThrough(name)
        zip.add(file)
        file.push(content, true)
        if (full) {
          full = false
          if (!response.destroyed) await Promise.race([once(response, 'drain'), once(response, 'close')])
        }
      }
      if (!response.headersSent)
        throw wrongField('dpi', leftOut[0] ?? 'There is no piece to make a symbol of.')
      if (leftOut.length > 0) {
        const note = new ZipDeflate('left out.txt')
        zip.add(note)
        note.push(new TextEncoder().encode(`${leftOut.join('\r\n')}\r\n`), true)
      }
      zip.end()
      return undefined
    },
  )
}
