import {
  drawnMm,
  finished,
  finishedLook,
  laidOn,
  printedSymbol,
  RasterTooLarge,
  sceneEps,
  sceneSvg,
  styledScene,
  SymbolTooLong,
  type Finish,
  type Finished,
  type Level,
  type Look,
  type Placement,
} from '@flimbo/core/symbol'
import { setText } from './letters.ts'
import { scenePdf } from './pdf.ts'
import { addressesFor, pixelsFor, type PictureFiles } from './pictures.ts'
import { sceneRaster } from './raster.ts'

/** A piece as it is printed, with all that drawing it needs. */
export interface PrintPiece {
  readonly name: string
  /** What the symbol carries. */
  readonly text: string
  readonly level: Level
  readonly mm: number
  readonly look: Look
  /** Where it lies on a picture; null where it stands alone. */
  readonly placement: Placement | null
  /** The short link as people type it. */
  readonly link: string
  readonly files: PictureFiles
}

/** A file of a piece, or why there is none. */
export type Drawn =
  | { readonly ok: true; readonly bytes: Uint8Array; readonly widthMm: number; readonly heightMm: number }
  | { readonly ok: false; readonly field: 'dpi' | 'level'; readonly sentence: string }

/** The scene of a piece, finished for a printer. @throws SymbolTooLong */
export function sceneOf(piece: PrintPiece, how: Finish): Finished {
  const { name, text, level, mm, look, link, files, placement } = piece
  const symbol = printedSymbol(text, level)
  const wanted = finishedLook(look, how)
  const scene = styledScene(symbol, wanted, drawnMm(symbol, wanted, mm, how), name, link, {
    text: setText,
    pictureSize: (file) => files[file] ?? null,
  })
  const size = placement && files[placement.file]
  // A picture that a piece lies on has its own bleed.
  return placement && size
    ? finished(laidOn(scene, placement, size), { ground: null }, how)
    : finished(scene, wanted, how)
}

/** Draws a piece as a file. */
export async function draw(piece: PrintPiece, how: Finish): Promise<Drawn> {
  try {
    const page = sceneOf(piece, how)
    const { scene } = page
    const bytes = await bytesOf(piece, page, how)
    return { ok: true, bytes, widthMm: scene.width * scene.unitMm, heightMm: scene.height * scene.unitMm }
  } catch (error) {
    if (error instanceof RasterTooLarge) return { ok: false, field: 'dpi', sentence: error.message }
    if (error instanceof SymbolTooLong) return { ok: false, field: 'level', sentence: error.message }
    throw error
  }
}

async function bytesOf({ name, files }: PrintPiece, page: Finished, how: Finish): Promise<Uint8Array> {
  const { scene } = page
  switch (how.format) {
    case 'svg': {
      const addresses = await addressesFor(scene, files)
      return new TextEncoder().encode(sceneSvg(scene, (file) => addresses.get(file) ?? null))
    }
    case 'eps':
      return new TextEncoder().encode(sceneEps(scene, how.colours, await pixelsFor(scene, files)))
    case 'pdf':
      return scenePdf(page, { title: name, space: how.colours }, await pixelsFor(scene, files))
    case 'png':
    case 'jpeg':
    case 'webp':
      return sceneRaster(scene, { format: how.format, dpi: how.dpi }, (dpi) => pixelsFor(scene, files, dpi))
  }
}
