import type { QrSymbol } from './encode.ts'
import { lineOf, type Line } from './lettering.ts'
import type { Look } from './look.ts'
import type { LookParts } from './lookParts.ts'
import type { Box } from './marks.ts'
import { roundedRectangle, type Outline } from './path.ts'

/** How high letters are set where their line has room enough, as shares of the symbol with its quiet zone. */
const CAPTION_EM = 0.12
const LINK_EM = 0.085
/** Where things stand about a symbol, in modules: lines are no wider than the symbol without its quiet zone. */
export function surroundOf(
  surround: NonNullable<Look['surround']>,
  side: number,
  full: number,
  link: string,
  parts: LookParts,
): { edge: number; top: number; caption: Line | null; lines: Line[] } {
  const edge = surround.line + surround.padding
  const written =
    surround.caption === '' ? null : lineOf(parts.text(surround.caption, 'caption'), full * CAPTION_EM, side)
  const above = surround.captionAt === 'above' ? written : null
  const below = surround.captionAt === 'below' ? written : null
  const linkLine =
    surround.link && link !== '' ? lineOf(parts.text(link, 'link'), full * LINK_EM, side) : null
  return {
    edge,
    top: edge + (above?.height ?? 0),
    caption: above,
    lines: [below, linkLine].filter((line) => line !== null),
  }
}

/** Where the upper left module of a symbol in a look lies in its scene, in modules. */
export function symbolAt(
  symbol: Pick<QrSymbol, 'side'>,
  look: Look,
  link: string,
  parts: LookParts,
): { readonly x: number; readonly y: number } {
  const { quietZone, surround } = look
  if (!surround) return { x: quietZone, y: quietZone }
  const { edge, top } = surroundOf(surround, symbol.side, symbol.side + 2 * quietZone, link, parts)
  return { x: edge + quietZone, y: top + quietZone }
}

/** The line about a symbol: an outer and an inner outline. */
export function frameOutlines({ width, height }: Box, line: number, corner: number): Outline[] {
  return [
    roundedRectangle(0, 0, width, height, corner),
    roundedRectangle(line, line, width - 2 * line, height - 2 * line, Math.max(0, corner - line)),
  ]
}
