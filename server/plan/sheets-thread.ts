import type ExcelJS from 'exceljs'
import {
  COLUMNS_MAX,
  cutCell,
  decodeBytes,
  detectEncoding,
  dryRun,
  fileColumns,
  readTable,
  tableFault,
} from '@flimbo/core/plan'
import { readDestination } from '@flimbo/core/routing'
import { tagCounts } from '@flimbo/core/tagging'
import { serveCalls } from '../threads/index.ts'
import type { Judged, JudgeOrder, SheetCalls, SheetOrder, SheetRead } from './sheets.ts'
import { unpacksIntoTooMuch } from './zipSize.ts'

/** A workbook is a ZIP file; so its first bytes say (PKWARE APPNOTE, section 4.3.7). */
const isWorkbook = (bytes: Uint8Array) =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4

/** A cell's text as a person sees it; a day as ISO 8601 has it. */
function textOf({ value, text }: ExcelJS.Cell): string {
  if (value === null || value === undefined) return ''
  if (value instanceof Date) return value.toISOString().slice(0, 10)
  if (typeof value === 'object' && 'result' in value) {
    const { result } = value
    if (result instanceof Date) return result.toISOString().slice(0, 10)
    return typeof result === 'object' || result === undefined ? '' : String(result)
  }
  if (typeof value === 'object' && 'error' in value) return ''
  return text
}

const refused = (sentence: string): SheetRead => ({ ok: false, sentence })

async function readWorkbook(bytes: Uint8Array, wished: string | undefined): Promise<SheetRead> {
  if (unpacksIntoTooMuch(bytes))
    return refused(
      'This workbook unpacks into more than a plan can be. Save the one sheet that matters, or save it as CSV.',
    )
  // A large library, and most files are no workbooks.
  const { default: library } = await import('exceljs')
  const workbook = new library.Workbook()
  // exceljs asks for a Buffer by a type of its own, and takes any.
  await workbook.xlsx.load(bytes as never)
  const sheets = workbook.worksheets.map(({ name }) => name)
  const sheet =
    workbook.worksheets.find(({ name }) => name === wished) ??
    workbook.worksheets.find(({ actualRowCount }) => actualRowCount > 0) ??
    workbook.worksheets[0]
  if (!sheet) return refused('There is no sheet in this workbook.')
  const { columnCount } = sheet
  if (columnCount > COLUMNS_MAX)
    return refused(
      `The sheet “${sheet.name}” reaches to column ${columnCount.toLocaleString('en-GB')}; a plan has at most ${String(COLUMNS_MAX)}. Delete what stands far to the right, and try again.`,
    )
  const rows: string[][] = []
  sheet.eachRow({ includeEmpty: false }, (row) => {
    rows.push(Array.from({ length: columnCount }, (_, i) => textOf(row.getCell(i + 1))))
  })
  return {
    ok: true,
    kind: 'workbook',
    rows: rows.filter((row) => row.some((cell) => cell.trim() !== '')),
    encoding: 'utf-8',
    delimiter: ',',
    sheets,
    sheet: sheet.name,
  }
}

async function readAny({ bytes, encoding: wished, delimiter, sheet }: SheetOrder): Promise<SheetRead> {
  if (isWorkbook(bytes)) {
    try {
      return await readWorkbook(bytes, sheet)
    } catch {
      return refused(
        'This workbook is damaged or protected by a password. Save it again without one, or as CSV.',
      )
    }
  }
  const encoding = wished ?? detectEncoding(bytes)
  const text = decodeBytes(bytes, encoding)
  if (text.includes('\u0000'))
    return { ok: false, sentence: 'This is no table: hand in a CSV file or an XLSX workbook.' }
  try {
    const table = readTable(text, delimiter)
    return {
      ok: true,
      kind: 'text',
      rows: table.rows.map((row) => [...row]),
      encoding,
      delimiter: table.delimiter,
      sheets: [],
      sheet: '',
    }
  } catch (error) {
    return { ok: false, sentence: error instanceof Error ? error.message : 'This file cannot be read.' }
  }
}

/** Reads a file, refuses what is too wide to be a plan, and cuts what is too long for any of its columns. */
async function read(order: SheetOrder): Promise<SheetRead> {
  const found = await readAny(order)
  if (!found.ok) return found
  const fault = tableFault(found.rows)
  return fault === null ? { ...found, rows: found.rows.map((row) => row.map(cutCell)) } : refused(fault)
}

function judge({ rows, mapping, options, world }: JudgeOrder): Judged {
  const { values, sameTags, doors, ...rest } = world
  const lines = [
    ...dryRun(
      rows,
      mapping,
      {
        ...rest,
        columns: fileColumns(world.rules.parameters),
        counts: tagCounts(values, sameTags),
        destinationFault: (address) => {
          const reading = readDestination(address, doors)
          return reading.ok ? null : reading.sentence
        },
      },
      options,
    ),
  ]
  return { ok: true, lines }
}

const calls: SheetCalls = { read, judge }
serveCalls(calls)
