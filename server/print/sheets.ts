import type { Writable } from 'node:stream'
import { moment, number, quantity } from '@flimbo/core/formats'
import { filledPattern } from '@flimbo/core/plan'
import { sheetCount, SHEETS_MAX, type SheetOrder } from '@flimbo/core/print'
import { ENTRIES_A_PAGE } from '@flimbo/core/symbol'
import { Refusal, writeTo } from '../api/index.ts'
import { findAmong, tables, type CampaignRow, type Database } from '../database/index.ts'
import type { Advance } from '../jobs/index.ts'
import type { LimitedThread } from '../threads/index.ts'
import type { DrawCalls } from './files.ts'
import type { Page } from './pages.ts'
import { chosenCount, type Chosen, type PieceMaker, type ReadyPiece } from './pieces.ts'
import type { Proofing } from './proofs.ts'

interface Parts {
  readonly database: Database
  readonly pieces: PieceMaker
  readonly proofs: Proofing
  readonly thread: LimitedThread<DrawCalls>
}

type Sheets = Extract<SheetOrder, { what: 'sheets' }>

/** Lays pieces out on sheets, page by page, so that thousands of them take no more memory than one. */
export function sheetFiles({ database: { read }, pieces, proofs, thread }: Parts) {
  let documents = 0

  /** Writes a document whose pages come one after the other. */
  async function writeDocument(
    out: Writable,
    title: string,
    space: 'rgb' | 'cmyk',
    pages: AsyncIterable<Page>,
  ): Promise<void> {
    const key = String(++documents)
    const failed = () =>
      new Refusal(
        'tooLarge',
        'A page takes too long or too much memory to be drawn. Choose fewer pieces, or simpler looks.',
      )
    if ((await thread.call('begin', key, title, space)) === null) throw failed()
    try {
      for await (const page of pages) {
        const made = await thread.call('page', key, page)
        if (!made) throw failed()
        if (!made.ok) throw new Refusal('invalid', made.sentence)
        await writeTo(out, made.bytes)
      }
      const rest = await thread.call('end', key)
      if (!rest) throw failed()
      await writeTo(out, rest)
    } finally {
      await thread.call('drop', key)
    }
  }

  async function* sheetPages(
    campaign: CampaignRow,
    chosen: Chosen,
    layout: Sheets['layout'],
    advance: Advance,
  ): AsyncGenerator<Page> {
    const { rows, columns, copies, start, captions } = layout
    const cellCount = rows * columns
    const digits = String(chosenCount(chosen)).length
    let page: { pieces: ReadyPiece['piece'][]; cells: ({ piece: number; captions: string[] } | null)[] } = {
      pieces: [],
      cells: Array.from({ length: start - 1 }, () => null),
    }
    let n = 0
    for await (const ready of pieces.each(campaign.workspaceId, chosen)) {
      advance(n++, chosenCount(chosen))
      const fields = await pieces.fieldsOf(ready, campaign)
      const texts = fields
        ? captions
            .map((pattern) => filledPattern(pattern, { ...fields, n: String(n).padStart(digits, '0') }))
            .filter((text) => text.trim() !== '')
        : []
      for (let copy = 0; copy < copies; copy++) {
        if (page.pieces.at(-1) !== ready.piece) page.pieces.push(ready.piece)
        page.cells.push({ piece: page.pieces.length - 1, captions: texts })
        if (page.cells.length === cellCount) {
          yield { kind: 'sheet', layout, ...page }
          page = { pieces: [], cells: [] }
        }
      }
    }
    if (page.pieces.length > 0) yield { kind: 'sheet', layout, ...page }
  }

  /** Where a piece leads, or what a static code carries. */
  async function leadsTo(ready: ReadyPiece): Promise<string> {
    if (ready.kind === 'static') return ready.piece.text.replace(/\s+/g, ' ')
    if (ready.row.otherwise !== '') return ready.row.otherwise
    const [route] = await findAmong(read, tables.routes, 'id', [ready.row.routeId])
    return route?.destination ?? ''
  }

  async function* proofPages(
    campaign: CampaignRow,
    chosen: Chosen,
    at: number,
    advance: Advance,
  ): AsyncGenerator<Page> {
    const pageCount = Math.ceil(chosenCount(chosen) / ENTRIES_A_PAGE)
    let [n, pageNumber] = [0, 0]
    let entries: Extract<Page, { kind: 'proof' }>['entries'][number][] = []
    const whole = (): Page => ({
      kind: 'proof',
      head: {
        left: `${campaign.name}: proof sheet`,
        right: `${moment(at, campaign.zone)}, page ${number(++pageNumber)} of ${number(pageCount)}`,
      },
      entries,
    })
    for await (const ready of pieces.each(campaign.workspaceId, chosen)) {
      advance(n++, chosenCount(chosen))
      const { row, style, piece } = ready
      const proof = await proofs.of(ready)
      entries.push({
        piece,
        name: row.name,
        link: piece.link,
        leads: await leadsTo(ready),
        preflight: proof
          ? [`Grade ${proof.grade}, ${proof.readiness.replace('-', ' ')}.`, ...proof.sentences]
          : ['Not checked before print yet.'],
        print: [
          `${number(row.sizeMm)} mm`,
          style?.name ?? 'Plain',
          ...(row.printRun === null ? [] : [quantity(row.printRun, 'copy', 'copies')]),
          ...(row.place === '' ? [] : [row.place]),
        ].join(', '),
      })
      if (entries.length === ENTRIES_A_PAGE) {
        yield whole()
        entries = []
      }
    }
    if (entries.length > 0) yield whole()
  }

  return {
    /** @throws Refusal where a symbol is larger than its cell */
    async write(
      out: Writable,
      campaign: CampaignRow,
      chosen: Chosen,
      order: SheetOrder,
      advance: Advance,
    ): Promise<void> {
      if (order.what === 'proof-sheet') {
        const pages = proofPages(campaign, chosen, Date.now(), advance)
        await writeDocument(out, `${campaign.name}: proof sheet`, 'rgb', pages)
        return
      }
      const pages = sheetPages(campaign, chosen, order.layout, advance)
      await writeDocument(out, `${campaign.name}: sheets`, order.colours, pages)
    },
    /** Why an order is too large; null where it is not. */
    tooMany(order: SheetOrder, pieceCount: number): string | null {
      const count =
        order.what === 'proof-sheet'
          ? Math.ceil(pieceCount / ENTRIES_A_PAGE)
          : sheetCount(order.layout, pieceCount)
      return count > SHEETS_MAX
        ? `That would be ${number(count)} pages; ${number(SHEETS_MAX)} are the most. Choose fewer pieces or copies.`
        : null
    },
  }
}
