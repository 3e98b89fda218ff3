import { sheetCells, sheetSides, type SheetLayout } from '@flimbo/core/print'
import {
  CellTooSmall,
  DEFAULT_FINISH,
  inCell,
  proofPage,
  sheetMarks,
  type ColourSpace,
  type Pixels,
  type ProofEntry,
  type Scene,
} from '@flimbo/core/symbol'
import { sceneOf, type PrintPiece } from './draw.ts'
import { setText } from './letters.ts'
import { addPage, newDocument } from './pdf.ts'
import { pixelsFor } from './pictures.ts'

/** A page of labels or cards: what stands in each cell from the first on, by its place among the pieces. */
export interface SheetPage {
  readonly kind: 'sheet'
  readonly layout: SheetLayout
  readonly pieces: readonly PrintPiece[]
  readonly cells: readonly ({ readonly piece: number; readonly captions: readonly string[] } | null)[]
}
/** A page of a proof sheet. */
export interface ProofSheetPage {
  readonly kind: 'proof'
  readonly head: { readonly left: string; readonly right: string }
  readonly entries: readonly (Omit<ProofEntry, 'scene'> & { readonly piece: PrintPiece })[]
}
export type Page = SheetPage | ProofSheetPage

/** What of a document is there by now; or why its next page cannot be. */
export type PageAnswer =
  { readonly ok: true; readonly bytes: Uint8Array } | { readonly ok: false; readonly sentence: string }

const sceneFor = (piece: PrintPiece): Scene => sceneOf(piece, DEFAULT_FINISH).scene

function sheetScene({ layout, pieces, cells }: SheetPage, scenes: readonly Scene[]): Scene {
  const places = sheetCells(layout)
  const sides = sheetSides(layout)
  const marks = cells.flatMap((content, i) => {
    const [place, scene] = [places[i], content && scenes[content.piece]]
    if (!content || !place || !scene) return []
    return inCell({ scene, captions: content.captions }, place, layout.fit, setText)
  })
  return {
    title: pieces[0]?.name ?? '',
    unitMm: 1,
    ...sides,
    marks: [...marks, ...sheetMarks(places, sides, layout.marks)],
  }
}

/** Documents that are being made, page by page: what is finished of each is handed out, and kept no longer. */
export function documents() {
  const open = new Map<string, { doc: PDFKit.PDFDocument; parts: Uint8Array[]; space: ColourSpace }>()

  function taken(key: string): Uint8Array {
    const parts = open.get(key)?.parts.splice(0) ?? []
    return Buffer.concat(parts)
  }

  return {
    begin(key: string, title: string, space: ColourSpace): void {
      const doc = newDocument({ title })
      const parts: Uint8Array[] = []
      doc.on('data', (part: Uint8Array) => parts.push(part))
      open.set(key, { doc, parts, space })
    },
    /** Adds a page. @throws Error where the document was not begun by this thread */
    async page(key: string, page: Page): Promise<PageAnswer> {
      const under = open.get(key)
      if (!under) throw new Error(`No document ${key}`)
      const pieces = page.kind === 'sheet' ? page.pieces : page.entries.map(({ piece }) => piece)
      const scenes = pieces.map(sceneFor)
      const pictures = new Map<string, Pixels>()
      for (const [i, scene] of scenes.entries())
        for (const [sum, pixels] of await pixelsFor(scene, pieces[i]?.files ?? {})) pictures.set(sum, pixels)
      try {
        const scene =
          page.kind === 'sheet'
            ? sheetScene(page, scenes)
            : proofPage(
                page.head,
                page.entries.flatMap(({ piece: _piece, ...entry }, i) => {
                  const own = scenes[i]
                  return own ? [{ ...entry, scene: own }] : []
                }),
                setText,
              )
        addPage(under.doc, { scene, trimMm: 0, bleedMm: 0 }, under.space, pictures)
      } catch (error) {
        if (error instanceof CellTooSmall) return { ok: false, sentence: error.message }
        throw error
      }
      // What was written of the pages before comes with the next turn of the loop.
      await new Promise((resolve) => setImmediate(resolve))
      return { ok: true, bytes: taken(key) }
    },
    async end(key: string): Promise<Uint8Array> {
      const under = open.get(key)
      if (!under) throw new Error(`No document ${key}`)
      const whole = new Promise((resolve) => under.doc.once('end', resolve))
      under.doc.end()
      await whole
      const rest = taken(key)
      open.delete(key)
      return rest
    },
    /** Forgets a document that nobody wants any more. */
    drop(key: string): void {
      open.delete(key)
    },
  }
}
