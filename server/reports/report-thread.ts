import { strToU8, zipSync } from 'fflate'
import {
  dataOf,
  reportDocument,
  reportPage,
  reportTables,
  type MadeReport,
  type ReportFile,
} from '@flimbo/core/reports'
import { tableCsv } from '@flimbo/core/charts'
import { html, trusted } from '@flimbo/core/fields'
import { plainName } from '@flimbo/core/tagging'
import type { PictureFile } from '../print/index.ts'
import { serveCalls } from '../threads/index.ts'
import { chartMarkup } from './chartSvg.ts'
import { readLogo } from './logo.ts'
import { reportPdf } from './pdf.ts'
import { reportSheet } from './sheet.ts'

/** How a page is written beside the report itself. */
export interface PageOrder {
  readonly nonce: string
  /** Where the fonts are. */
  readonly fonts: string
  /** Markup of what stands above it. */
  readonly before: string
}

async function page(made: MadeReport, logoFile: PictureFile | null, { nonce, fonts, before }: PageOrder) {
  const logo = await readLogo(logoFile)
  const address = logo && `data:image/png;base64,${Buffer.from(logo.bytes).toString('base64')}`
  const drawing = { look: made.look, chart: chartMarkup, logo: address, fonts }
  return reportPage(reportDocument(made), drawing, {
    nonce,
    before: before === '' ? html`` : trusted(before),
  })
}

/** Tables as CSV, each a file of its own, in one ZIP file. */
function csvArchive(made: MadeReport): Uint8Array {
  const files = reportTables(made).map((table, i): [string, Uint8Array] => [
    `${String(i + 1).padStart(2, '0')}-${plainName(table.name) || 'question'}.csv`,
    strToU8(tableCsv(table)),
  ])
  return zipSync(Object.fromEntries(files), { mtime: made.madeAt })
}

async function file(made: MadeReport, as: ReportFile, logoFile: PictureFile | null): Promise<Uint8Array> {
  switch (as) {
    case 'pdf':
      return reportPdf(made, await readLogo(logoFile))
    case 'xlsx':
      return reportSheet(made)
    case 'csv':
      return csvArchive(made)
    case 'json':
      return strToU8(JSON.stringify(dataOf(made), null, 2))
  }
}

const reportCalls = { page, file }
export type ReportCalls = typeof reportCalls
serveCalls(reportCalls)
