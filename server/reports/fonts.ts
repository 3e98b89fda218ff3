import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { create, type Font } from 'fontkit'

/** The weights that reports are written in. */
export type Weight = 'plain' | 'strong'

const { resolve } = createRequire(import.meta.url)
const NEXT = '@fontsource/atkinson-hyperlegible-next'
const NOTO = '@fontsource/noto-sans'
const WEIGHTS = { plain: 400, strong: 600 } as const

/** The files of a face, by the signs they hold: what the first has not is written with another. */
const RANGES = [
  [NEXT, 'atkinson-hyperlegible-next', 'latin'],
  [NEXT, 'atkinson-hyperlegible-next', 'latin-ext'],
  [NOTO, 'noto-sans', 'greek'],
  [NOTO, 'noto-sans', 'cyrillic'],
  [NOTO, 'noto-sans', 'vietnamese'],
] as const

/** A font file: what it is called in a document, and its bytes. */
export interface FontFile {
  readonly name: string
  readonly bytes: Buffer
  readonly font: Font
}

/** Stands for what no font has. */
const UNKNOWN = '\uFFFD'

const read = new Map<Weight, readonly FontFile[]>()

/** The fonts of a weight, the usual one first. */
export function fontsOf(weight: Weight): readonly FontFile[] {
  const there = read.get(weight)
  if (there) return there
  const fonts = RANGES.map(([of, name, range]): FontFile => {
    const file = `${name}-${range}-${String(WEIGHTS[weight])}-normal.woff`
    const bytes = readFileSync(resolve(`${of}/files/${file}`))
    // One file holds one font.
    return { name: file, bytes, font: create(bytes) as Font }
  })
  read.set(weight, fonts)
  return fonts
}

/** Some letters of one font, side by side. */
export interface LetterRun {
  readonly file: FontFile
  readonly text: string
}

/** A text as runs, each of one font. What no font has is told by a sign of its own; what shows nothing is left out. */
export function runsOf(text: string, weight: Weight): LetterRun[] {
  const fonts = fontsOf(weight)
  const [usual] = fonts
  const runs: { file: FontFile; text: string }[] = []
  for (const sign of text.normalize('NFC').replace(/[\p{Cf}\p{Cc}]/gu, '')) {
    const at = sign.codePointAt(0) ?? 0
    const last = runs.at(-1)
    const file = fonts.find(({ font }) => font.hasGlyphForCodePoint(at)) ?? null
    const [own, shown] = file ? [file, sign] : [usual, UNKNOWN]
    if (!own) continue
    if (last?.file === own) last.text += shown
    else runs.push({ file: own, text: shown })
  }
  return runs
}

/** How wide a run is, in the unit of `size`. */
export function widthOfRun({ file: { font }, text }: LetterRun, size: number): number {
  return (font.layout(text).advanceWidth / font.unitsPerEm) * size
}

/** How wide a text is, in the unit of `size`. */
export function widthOfText(text: string, size: number, isStrong = false): number {
  return runsOf(text, isStrong ? 'strong' : 'plain').reduce((sum, run) => sum + widthOfRun(run, size), 0)
}
