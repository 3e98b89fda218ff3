import { PassThrough, type Writable } from 'node:stream'
import { finished } from 'node:stream/promises'
import { writeTo } from '../api/index.ts'
import { csvCell, csvMoment, csvRow } from '../scans/index.ts'
import type { Cell } from './leadTable.ts'

type Rows = AsyncIterable<readonly Cell[]>
type Advance = (done: number) => void

const cellText = (cell: Cell): string => (cell instanceof Date ? csvMoment(cell.getTime()) : csvCell(cell))
/** Rows that are written together. */
const AT_ONCE = 200

/** Writes rows as CSV (RFC 4180): nothing in it is taken for a formula. */
export async function writeCsv(out: Writable, rows: Rows, advance: Advance): Promise<void> {
  let [text, done] = ['', -1]
  for await (const row of rows) {
    text += csvRow(row.map(cellText))
    done++
    if (done % AT_ONCE !== 0) continue
    await writeTo(out, text)
    text = ''
    advance(done)
  }
  await writeTo(out, text)
}

/** Writes rows as a sheet (Office Open XML): numbers and moments as such, all else as text, whatever it begins with. */
export async function writeSheet(out: Writable, rows: Rows, advance: Advance): Promise<void> {
  const { default: library } = await import('exceljs')
  const through = new PassThrough()
  // The end of the file is whoever's asked for it.
  through.pipe(out, { end: false })
  const book = new library.stream.xlsx.WorkbookWriter({ stream: through })
  const sheet = book.addWorksheet('Leads', { views: [{ state: 'frozen', ySplit: 1 }] })
  let done = -1
  for await (const row of rows) {
    const written = sheet.addRow([...row])
    if (done < 0) written.font = { bold: true }
    for (const [i, cell] of row.entries())
      if (cell instanceof Date) written.getCell(i + 1).numFmt = 'yyyy-mm-dd hh:mm:ss'
    written.commit()
    done++
    if (done % AT_ONCE === 0) advance(done)
  }
  await book.commit()
  through.end()
  await finished(through)
}
