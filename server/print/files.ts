import type { Writable } from 'node:stream'
import { escapeFormula, fileNamer, writeTable, type FileNameFields } from '@flimbo/core/plan'
import type { PrintOrder } from '@flimbo/core/print'
import { freeLevel } from '@flimbo/core/symbol'
import { Refusal, wrongField } from '../api/index.ts'
import type { Advance } from '../jobs/index.ts'
import type { LimitedThread } from '../threads/index.ts'
import { archive } from './archive.ts'
import type { draw, Drawn, PrintPiece } from './draw.ts'
import type { documents } from './pages.ts'

/** What the thread that draws is called for. */
export type DrawCalls = { draw: typeof draw } & ReturnType<typeof documents>

/** A piece in a list of files: what its file is named by, and the house style it is printed in. */
export interface Listed {
  readonly piece: PrintPiece
  readonly fields: Omit<FileNameFields, 'n'>
  readonly styleName: string
}

const BOM = '\ufeff'
const LIST = 'list of files.csv'
const HEADINGS = ['Piece', 'Carries', 'Width mm', 'Height mm', 'Level', 'House style', 'File', 'SHA-256']
const mm = (value: number) => String(Math.round(value * 1000) / 1000)

/** Draws pieces as files, on a thread of its own. */
export function printFiles(thread: LimitedThread<DrawCalls>) {
  /** @throws Refusal where it could not be drawn at all */
  async function drawn(piece: PrintPiece, finish: PrintOrder['finish']): Promise<Drawn> {
    const made = await thread.call('draw', piece, finish)
    if (!made)
      throw new Refusal(
        'tooLarge',
        `“${piece.name}” takes too long or too much memory to be drawn. Choose fewer dpi, or a vector format.`,
      )
    return made
  }

  return {
    drawn,
    /** Writes the files of many pieces and a list of them. @throws Refusal where none of them can be drawn */
    async zip(
      out: Writable,
      pieces: AsyncIterable<Listed>,
      total: number,
      { pattern, finish }: Pick<PrintOrder, 'pattern' | 'finish'>,
      advance: Advance,
    ): Promise<void> {
      const nameOf = fileNamer(pattern, finish.format)
      const digits = String(total).length
      const zip = archive(out)
      const list = [HEADINGS]
      const leftOut: string[] = []
      let n = 0
      for await (const { piece, fields, styleName } of pieces) {
        if (out.destroyed) return
        advance(n++, total)
        const made = await drawn(piece, finish)
        if (!made.ok) {
          // One piece that is too large for a picture keeps nobody from the others.
          leftOut.push(`${piece.name}${fields.link === '' ? '' : ` (${fields.link})`}: ${made.sentence}`)
          continue
        }
        const name = nameOf({ ...fields, n: String(n).padStart(digits, '0') })
        const sum = await zip.add(name, made.bytes)
        list.push([
          escapeFormula(piece.name),
          escapeFormula(piece.text),
          mm(made.widthMm),
          mm(made.heightMm),
          freeLevel(piece.text, piece.level),
          escapeFormula(styleName || 'Plain'),
          escapeFormula(name),
          sum,
        ])
      }
      if (leftOut.length === n) throw wrongField('finish.dpi', leftOut[0] ?? 'There is no piece to print.')
      const text = new TextEncoder()
      await zip.add(LIST, text.encode(`${BOM}${writeTable(list)}\r\n`))
      if (leftOut.length > 0) await zip.add('left out.txt', text.encode(`${leftOut.join('\r\n')}\r\n`))
      zip.end()
    },
  }
}
export type PrintFiles = ReturnType<typeof printFiles>
