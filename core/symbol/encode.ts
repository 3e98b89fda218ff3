import { _tests as library } from 'qr'
import { LIBRARY_LEVEL, type Level } from './capacity.ts'
import { codewords } from './codewords.ts'
import { fit } from './fit.ts'
import type { Segment } from './segments.ts'

/** Width of the quiet zone on each side, in modules (ISO/IEC 18004). */
export const QUIET_ZONE = 4

/** A symbol: its dark modules without the quiet zone, and what is known of it. */
export interface QrSymbol {
  readonly text: string
  readonly level: Level
  /** How the text is written: in one mode, or in several where that is shorter. */
  readonly segments: readonly Segment[]
  /** 1 to 40. */
  readonly version: number
  /** Modules a side, quiet zone excluded: 17 + 4 · version (ISO/IEC 18004). */
  readonly side: number
  /** Rows from the top, each from the left; true is dark. */
  readonly modules: readonly (readonly boolean[])[]
}

/** The text is longer than the largest symbol holds at its level. */
export class SymbolTooLong extends RangeError {
  override readonly name = 'SymbolTooLong'
  constructor(readonly level: Level) {
    super(`This is too long for a symbol at level ${level}. Choose a lower level or a shorter text.`)
  }
}

/**
 * Encodes a text as a QR code in the smallest version that holds it, in the modes that make it shortest, with
 * the mask the standard's penalty rules choose. Bytes are UTF-8.
 *
 * @param version takes this version (1–40) instead of the smallest
 * @throws SymbolTooLong when the text exceeds what version 40, or the given one, can hold
 */
export function encode(text: string, level: Level, version?: number): QrSymbol {
  const found = fit(text, level, version)
  if (!found || (version !== undefined && found.version !== version)) throw new SymbolTooLong(level)
  const { segments } = found
  // Function patterns, placement and the choice of the mask are the library's.
  const drawn = library.drawSymbol(
    found.version,
    LIBRARY_LEVEL[level],
    codewords(segments, found.version, level),
  )
  const side = drawn.size
  const modules = Array.from({ length: side }, (_, y) =>
    Array.from({ length: side }, (__, x) => library.matGet(drawn, x, y) === 1),
  )
  return { text, level, segments, version: found.version, side, modules }
}
