import { crc32, deflateRawSync } from 'node:zlib'
import ExcelJS from 'exceljs'
import { Zip, type ZipInputFile } from 'fflate'
import { CELL_MAX } from '@flimbo/core/plan'
import { afterAll, describe, expect, it } from 'vitest'
import { sheetReader, type SheetOrder } from './sheets.ts'
import { UNPACKED_MAX } from './zipSize.ts'

const sheets = sheetReader()
afterAll(() => sheets.close())

const bytes = (text: string) => new TextEncoder().encode(text)
async function workbook(fill: (book: ExcelJS.Workbook) => void): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook()
  fill(book)
  // exceljs answers with a buffer of its own type.
  return new Uint8Array(await book.xlsx.writeBuffer())
}
const rowsOf = async (order: SheetOrder) => {
  const read = await sheets.read(order)
  if (!read.ok) throw new Error(read.sentence)
  return read
}

describe('reading a workbook', () => {
  it('takes cells as a person sees them: days, results of formulas, rich text, links', async () => {
    const file = await workbook((book) => {
      const sheet = book.addWorksheet('Plan')
      sheet.addRow(['Name', 'Size', 'Live', 'Sum', 'Rich', 'Link', 'On'])
      sheet.addRow([
        'Poster',
        60,
        new Date(Date.UTC(2026, 6, 1)),
        { formula: '1+1', result: 2 },
        { richText: [{ text: 'two ' }, { text: 'parts' }] },
        { text: 'page', hyperlink: 'https://saltmarsh.example' },
        true,
      ])
    })
    const { rows, kind, sheet } = await rowsOf({ bytes: file })
    expect([kind, sheet]).toEqual(['workbook', 'Plan'])
    expect(rows[1]).toEqual(['Poster', '60', '2026-07-01', '2', 'two parts', 'page', 'true'])
  })

  it('begins with the first sheet that has something, and takes another where one is asked for', async () => {
    const file = await workbook((book) => {
      book.addWorksheet('Notes')
      book.addWorksheet('First').addRow(['a', 'b'])
      book.addWorksheet('Second').addRow(['c', 'd'])
    })
    const read = await rowsOf({ bytes: file })
    expect([read.sheets, read.sheet, read.rows]).toEqual([
      ['Notes', 'First', 'Second'],
      'First',
      [['a', 'b']],
    ])
    expect((await rowsOf({ bytes: file, sheet: 'Second' })).rows).toEqual([['c', 'd']])
  })

  it('keeps cells in their columns where some are empty', async () => {
    const file = await workbook((book) => {
      const sheet = book.addWorksheet('Plan')
      sheet.getCell('A1').value = 'a'
      sheet.getCell('C1').value = 'c'
      sheet.getCell('B3').value = 'b'
    })
    expect((await rowsOf({ bytes: file })).rows).toEqual([
      ['a', '', 'c'],
      ['', 'b', ''],
    ])
  })
})

/** A ZIP file with so many bytes of zero in it, packed by what is quick at that. */
function zipOfNothing(filename: string, size: number): Uint8Array<ArrayBuffer> {
  const zeros = Buffer.alloc(size)
  const parts: Uint8Array[] = []
  const zip = new Zip((_, part) => {
    parts.push(part)
  })
  const file: ZipInputFile = { filename, size, crc: crc32(zeros), compression: 8, flag: 0 }
  zip.add(file)
  file.ondata?.(null, deflateRawSync(zeros), true)
  zip.end()
  return Uint8Array.from(Buffer.concat(parts))
}

describe('a workbook that is made to do harm', () => {
  it('is refused where it unpacks into too much, whatever its directory says', async () => {
    const entry = zipOfNothing('xl/sharedStrings.xml', UNPACKED_MAX + 1)
    expect(entry.length).toBeLessThan(1 << 20)
    const refusal = { ok: false, sentence: expect.stringContaining('unpacks into more') as string }
    expect(await sheets.read({ bytes: entry })).toEqual(refusal)
    // The same with a directory and a header that tell of ten bytes.
    const lying = entry.slice()
    const view = new DataView(lying.buffer)
    for (let at = 0; at < lying.length - 4; at++) {
      if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 10, true)
      if (view.getUint32(at, true) === 0x04034b50) view.setUint32(at + 22, 10, true)
    }
    expect(await sheets.read({ bytes: lying })).toEqual(refusal)
  }, 60_000)

  it('is refused where a cell stands in the last column; one that holds a book is cut', async () => {
    const wide = await workbook((book) => {
      book.addWorksheet('Wide').getCell('XFD1').value = 'x'
    })
    expect(await sheets.read({ bytes: wide })).toEqual({
      ok: false,
      sentence: expect.stringContaining('reaches to column 16,384') as string,
    })
    const long = await workbook((book) => {
      book.addWorksheet('Long').getCell('A1').value = 'x'.repeat(CELL_MAX + 1)
    })
    expect((await rowsOf({ bytes: long })).rows[0]?.[0]).toHaveLength(CELL_MAX)
  })

  it('is given up when its time is over, and the next file is read', async () => {
    const hasty = sheetReader(1)
    expect(
      await hasty.read({
        bytes: await workbook((book) => {
          book.addWorksheet('A').addRow(['a'])
        }),
      }),
    ).toEqual({ ok: false, sentence: expect.stringContaining('too tangled') as string })
    await hasty.close()
    expect((await rowsOf({ bytes: bytes('a,b') })).rows).toEqual([['a', 'b']])
  })
})

describe('reading text', () => {
  it('goes by what a person says of it, against what it looks like', async () => {
    const order = { bytes: bytes('a;b,c\nd;e') }
    expect((await rowsOf(order)).delimiter).toBe(';')
    expect((await rowsOf({ ...order, delimiter: ',' })).rows).toEqual([['a;b', 'c'], ['d;e']])
    expect((await rowsOf({ bytes: new Uint8Array([0xcf, 0xf0]), encoding: 'windows-1251' })).rows).toEqual([
      ['Пр'],
    ])
  })

  it.each([
    ['bytes of a program', new Uint8Array([0x7f, 0x45, 0x4c, 0x46, 0, 0, 1]), 'no table'],
    ['an open quotation mark', bytes('a,"b'), 'never closed'],
    ['a ZIP file that is no workbook', new Uint8Array([0x50, 0x4b, 3, 4, 9, 9]), 'damaged'],
  ])('refuses %s with a sentence', async (_name, file, sentence) => {
    expect(await sheets.read({ bytes: file })).toEqual({
      ok: false,
      sentence: expect.stringContaining(sentence) as string,
    })
  })

  it('reads one file after the other, in turn, however many are handed in at once', async () => {
    const read = await Promise.all(
      Array.from({ length: 8 }, (_, i) => rowsOf({ bytes: bytes(`n,${String(i)}`) })),
    )
    expect(read.map(({ rows }) => rows[0]?.[1])).toEqual(['0', '1', '2', '3', '4', '5', '6', '7'])
  })

  it('goes on after the thread was ended', async () => {
    await sheets.close()
    expect((await rowsOf({ bytes: bytes('a,b') })).rows).toEqual([['a', 'b']])
  })
})
