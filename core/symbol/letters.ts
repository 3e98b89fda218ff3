import opentype from 'opentype.js'
import type { Curve, Outline, Point } from './path.ts'
import type { TextOutline } from './lettering.ts'

/** Letters of a font as outlines, so that a file needs no font. */
export interface Letters {
  /** A line of text, one unit an em, its baseline at y = 0; what the font has no letter for is left out. */
  readonly outline: (text: string) => TextOutline
  /** The signs of a text that the font has no letter for, each once. */
  readonly missing: (text: string) => string[]
}

type Font = opentype.Font
type Command = opentype.PathCommand

/**
 * Reads fonts (OpenType, also as WOFF 1.0). Of several files, such as one of Latin letters and one of more of them, the
 * first that has a letter draws it.
 *
 * @param files the bytes of each file
 * @throws Error where one is no font
 */
export function readLetters(files: readonly ArrayBuffer[]): Letters {
  const fonts = files.map((file) => opentype.parse(file))
  const fontFor = (sign: string): Font | undefined => fonts.find((font) => font.charToGlyphIndex(sign) > 0)
  return {
    missing: (text) => [...new Set(text)].filter((sign) => !fontFor(sign)),
    outline(text) {
      const outlines: Outline[] = []
      let x = 0
      let before: { font: Font; glyph: opentype.Glyph } | undefined
      for (const sign of text) {
        const font = fontFor(sign)
        if (!font) continue
        const glyph = font.charToGlyph(sign)
        const em = font.unitsPerEm
        // Pairs such as "AV" stand closer.
        if (before?.font === font) x += font.getKerningValue(before.glyph, glyph) / em
        outlines.push(...outlinesOf(glyph.getPath(x * em, 0, em).commands, em))
        x += (glyph.advanceWidth ?? 0) / em
        before = { font, glyph }
      }
      return { width: x, outlines }
    },
  }
}

/** The contours of a letter, units made ems, quadratic curves made cubic. */
function outlinesOf(commands: readonly Command[], em: number): Outline[] {
  const outlines: Outline[] = []
  let steps: (Point | Curve)[] = []
  let at: Point = [0, 0]
  const point = (x: number, y: number): Point => [x / em, y / em]
  // Contours are closed whether that is said or not.
  const close = () => {
    if (steps.length > 2) outlines.push(steps)
    steps = []
  }
  for (const command of commands) {
    switch (command.type) {
      case 'M':
        close()
        at = point(command.x, command.y)
        steps = [at]
        break
      case 'L':
        at = point(command.x, command.y)
        steps.push(at)
        break
      case 'C': {
        const [x1, y1] = point(command.x1, command.y1)
        const [x2, y2] = point(command.x2, command.y2)
        at = point(command.x, command.y)
        steps.push([x1, y1, x2, y2, at[0], at[1]])
        break
      }
      case 'Q': {
        const [x1, y1] = point(command.x1, command.y1)
        const end = point(command.x, command.y)
        const towards = (from: number, to: number) => from + (2 / 3) * (to - from)
        steps.push([
          towards(at[0], x1),
          towards(at[1], y1),
          towards(end[0], x1),
          towards(end[1], y1),
          end[0],
          end[1],
        ])
        at = end
        break
      }
      case 'Z':
        close()
    }
  }
  close()
  return outlines
}
