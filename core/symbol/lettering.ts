import { area } from './marks.ts'
import { placed, type Outline } from './path.ts'
import type { Area, Solid } from './scene.ts'

/** A line of text as outlines, its baseline at y = 0, one unit an em. */
export interface TextOutline {
  readonly width: number
  readonly outlines: readonly Outline[]
}

/** Letters that texts are set in: those of captions, and those that tell 0 from O in links. */
export type Face = 'caption' | 'link'
/** A line of text as outlines, in some letters. */
export type SetText = (text: string, face: Face) => TextOutline

const LINE_HEIGHT = 1.5
/** Where letters stand in their line: the baseline, from its top. */
const BASELINE = 1

/** A line of text at a size, in units of its scene. */
export interface Line {
  readonly text: TextOutline
  readonly em: number
  readonly height: number
}

/** A line as large as is wanted, or as there is room for. */
export function lineOf(text: TextOutline, wanted: number, width: number): Line {
  const em = Math.min(wanted, width / Math.max(text.width, 1e-6))
  return { text, em, height: em * LINE_HEIGHT }
}

/** A line with its upper left corner at a place. */
export function lineAt({ text, em }: Line, x: number, y: number, ink: Solid): Area {
  return area(
    text.outlines.map((outline) => placed(outline, x, y + em * BASELINE, em)),
    ink,
  )
}

/** A text in lines no wider than `width`; words that are wider, such as addresses, are broken anywhere. */
export function wrapped(text: string, face: Face, em: number, width: number, setText: SetText): Line[] {
  const widthOf = (part: string) => setText(part, face).width * em
  const parts = text.split(/(?<=[\s])/u).flatMap((word) => {
    if (widthOf(word.trimEnd()) <= width) return [word]
    const pieces: string[] = []
    for (const sign of word) {
      const last = pieces.at(-1)
      if (last !== undefined && widthOf(last + sign) <= width) pieces[pieces.length - 1] = last + sign
      else pieces.push(sign)
    }
    return pieces
  })
  const lines: string[] = []
  for (const part of parts) {
    const last = lines.at(-1)
    if (last !== undefined && widthOf((last + part).trimEnd()) <= width) lines[lines.length - 1] = last + part
    else lines.push(part)
  }
  return lines.map((line) => ({ text: setText(line.trimEnd(), face), em, height: em * LINE_HEIGHT }))
}
