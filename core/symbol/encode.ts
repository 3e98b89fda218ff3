import encodeQR from 'qr'

/** Error correction levels, from about 7 to about 30 % of codewords (ISO/IEC 18004). */
export const LEVELS = ['L', 'M', 'Q', 'H'] as const
export type Level = (typeof LEVELS)[number]

/** Share of codewords each level can recover, about (ISO/IEC 18004). */
export const RECOVERY: Readonly<Record<Level, number>> = { L: 0.07, M: 0.15, Q: 0.25, H: 0.3 }

/** Width of the quiet zone on each side, in modules (ISO/IEC 18004). */
export const QUIET_ZONE = 4

export type Mode = 'numeric' | 'alphanumeric' | 'byte'

const LIBRARY_LEVEL = { L: 'low', M: 'medium', Q: 'quartile', H: 'high' } as const

/** A symbol: its dark modules without the quiet zone, and what is known of it. */
export interface QrSymbol {
  readonly text: string
  readonly level: Level
  readonly mode: Mode
  /** 1 to 40. */
  readonly version: number
  /** Modules a side, quiet zone excluded: 17 + 4 · version (ISO/IEC 18004). */
  readonly side: number
  /** Rows from the top, each from the left; true is dark. */
  readonly modules: readonly (readonly boolean[])[]
}

/** The most compact mode that can carry a text (ISO/IEC 18004, the alphanumeric set of 45 signs). */
export function modeOf(text: string): Mode {
  if (/^\d+$/.test(text)) return 'numeric'
  return /^[0-9A-Z $%*+\-./:]+$/.test(text) ? 'alphanumeric' : 'byte'
}

/** The text is longer than the largest symbol holds at its level. */
export class SymbolTooLong extends RangeError {
  override readonly name = 'SymbolTooLong'
  constructor(
    readonly level: Level,
    options?: ErrorOptions,
  ) {
    super(`This is too long for a symbol at level ${level}. Choose a lower level or a shorter text.`, options)
  }
}

/**
 * Encodes a text as a QR code in the smallest version that holds it, in the most compact mode, with
 * the mask the standard's penalty rules choose. Bytes are UTF-8.
 *
 * @param version takes this version (1–40) instead of the smallest
 * @throws SymbolTooLong when the text exceeds what version 40, or the given one, can hold
 */
export function encode(text: string, level: Level, version?: number): QrSymbol {
  const mode = modeOf(text)
  let framed: boolean[][]
  try {
    framed = encodeQR(text, 'raw', { ecc: LIBRARY_LEVEL[level], encoding: mode, border: 1, version })
  } catch (cause) {
    throw new SymbolTooLong(level, { cause })
  }
  const modules = framed.slice(1, -1).map((row) => row.slice(1, -1))
  const side = modules.length
  return { text, level, mode, version: (side - 17) / 4, side, modules }
}
