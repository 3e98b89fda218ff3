import type ExcelJS from 'exceljs'
import type { ColumnForm } from '@flimbo/core/charts'
import { plainText } from '@flimbo/core/fields'
import { reportDocument, reportTables, type MadeReport, type ReportTable } from '@flimbo/core/reports'

/** How figures are shown; what they are stays in the cell. */
const FORMATS: Readonly<Record<ColumnForm, string>> = {
  text: '@',
  count: '#,##0',
  share: '0.0%',
  ratio: '0.0%',
  money: '#,##0.00',
}
const WIDEST = 60

/** Writes a report as a sheet (Office Open XML): what it says, then one sheet a question, figures as numbers. */
export async function reportSheet(made: MadeReport): Promise<Uint8Array> {
  const { default: library } = await import('exceljs')
  const book = new library.Workbook()
  book.creator = 'Flimbo'
  book.title = made.name
  book.created = new Date(made.madeAt)
  const tables = reportTables(made)
  const report = reportDocument(made)
  cover(book.addWorksheet('Report'), made, report, tables)
  for (const table of tables) questionSheet(book.addWorksheet(table.name), table, made.currency)
  // It asks for a Buffer by a type of its own.
  return new Uint8Array(await book.xlsx.writeBuffer())
}

function cover(
  sheet: ExcelJS.Worksheet,
  made: MadeReport,
  { title, subtitle, method }: ReturnType<typeof reportDocument>,
  tables: readonly ReportTable[],
): void {
  sheet.getColumn(1).width = WIDEST
  sheet.getColumn(2).width = WIDEST / 2
  sheet.addRow([title]).font = { bold: true, size: 16 }
  sheet.addRow([subtitle])
  for (const section of made.sections) {
    if (section.kind === 'words') for (const line of plainText(section.text).split('\n')) sheet.addRow([line])
    if (section.kind === 'failed') sheet.addRow([section.title, section.sentence])
  }
  sheet.addRow([])
  for (const { name, question } of tables) {
    const row = sheet.addRow([question.title])
    // Apostrophes are in no name of a sheet.
    row.getCell(2).value = { text: name, hyperlink: `#'${name}'!A1` }
  }
  sheet.addRow([])
  for (const sentence of method) sheet.addRow([sentence])
}

function questionSheet(sheet: ExcelJS.Worksheet, table: ReportTable, currency: string): void {
  const { question, headings, forms, rows, total } = table
  const { from, to, zone, of, narrowed, before, answer } = question
  sheet.addRow([question.title]).font = { bold: true, size: 14 }
  const about = [
    of,
    `${from} to ${to}, ${zone}`,
    before ? `Against ${before.from} to ${before.to}` : '',
    ...narrowed,
    answer.rowsTotal > answer.rows.length
      ? `The largest ${String(answer.rows.length)} of ${String(answer.rowsTotal)} rows`
      : '',
    forms.includes('money') ? `Amounts in ${currency}` : '',
  ]
  for (const line of about) if (line !== '') sheet.addRow([line])
  sheet.addRow([])
  const head = sheet.addRow([...headings])
  head.font = { bold: true }
  sheet.views = [{ state: 'frozen', ySplit: head.number }]
  for (const cells of [...rows, total]) {
    const row = sheet.addRow([...cells])
    forms.forEach((form, i) => {
      row.getCell(i + 1).numFmt = FORMATS[form]
    })
  }
  const last = sheet.lastRow
  if (last) last.font = { bold: true }
  headings.forEach((heading, i) => {
    const lengths = rows.map((cells) => String(cells[i] ?? '').length)
    sheet.getColumn(i + 1).width = Math.min(
      WIDEST,
      2 + Math.max(heading.length, ...(i < question.by.length ? lengths : [])),
    )
  })
}
