import { lineAt, wrapped, type Face, type Line, type SetText } from './lettering.ts'
import { area, placedMarks } from './marks.ts'
import { rectangle } from './path.ts'
import { BLACK, type Mark, type Scene, type Solid } from './scene.ts'

/** A piece on a proof sheet: what somebody signs for. */
export interface ProofEntry {
  readonly scene: Scene
  readonly name: string
  readonly link: string
  /** Where a scan without any rule goes. */
  readonly leads: string
  /** What was measured, in sentences; empty where nothing was. */
  readonly preflight: readonly string[]
  /** How it is printed, in words: size, style, run. */
  readonly print: string
}

/** A4 upright (ISO 216), in millimetres, and how it is divided. */
const PAGE = { width: 210, height: 297, margin: 15 }
const HEAD_MM = 16
const PICTURE = { width: 70, height: 72 }
const ENTRY_MM = 84
export const ENTRIES_A_PAGE = 3

const QUIET: Solid = { kind: 'solid', colour: '#5b676d', cmyk: [0, 0, 0, 65] }
const HAIRLINE_MM = 0.2

/**
 * A page of a proof sheet (A4): each piece with its picture, at its size where that has room, its link, where it leads,
 * what was measured, and a line for a signature.
 *
 * @param head what stands over the page: the campaign, the day, the number of the page
 * @param entries at most ENTRIES_A_PAGE
 */
export function proofPage(
  head: { readonly left: string; readonly right: string },
  entries: readonly ProofEntry[],
  setText: SetText,
): Scene {
  const marks: Mark[] = []
  const right = PAGE.width - PAGE.margin
  const write = (
    text: string,
    x: number,
    y: number,
    width: number,
    {
      em = 3.2,
      face = 'caption',
      ink = BLACK,
      most = 4,
    }: { em?: number; face?: Face; ink?: Solid; most?: number } = {},
  ): number => {
    let at = y
    for (const line of cut(wrapped(text, face, em, width, setText), most)) {
      marks.push(lineAt(line, x, at, ink))
      at += line.height
    }
    return at
  }
  const rule = (x: number, y: number, width: number) => {
    marks.push(area([rectangle(x, y, width, HAIRLINE_MM)], BLACK))
  }
  write(head.left, PAGE.margin, PAGE.margin, 130, { em: 4.2, most: 1 })
  write(head.right, PAGE.margin + 132, PAGE.margin, 48, { ink: QUIET, most: 1 })
  rule(PAGE.margin, PAGE.margin + 8, right - PAGE.margin)

  entries.slice(0, ENTRIES_A_PAGE).forEach((entry, i) => {
    const top = PAGE.margin + HEAD_MM + i * ENTRY_MM
    const { scene } = entry
    const [width, height] = [scene.width * scene.unitMm, scene.height * scene.unitMm]
    const scale = Math.min(1, PICTURE.width / width, PICTURE.height / height)
    marks.push(...placedMarks(scene.marks, PAGE.margin, top, scene.unitMm * scale))
    if (scale < 1)
      write(
        `shown at ${String(Math.round(scale * 100))} % of its size`,
        PAGE.margin,
        top + height * scale + 1,
        PICTURE.width,
        {
          em: 2.6,
          ink: QUIET,
          most: 1,
        },
      )
    const x = PAGE.margin + PICTURE.width + 8
    const room = right - x
    let y = write(entry.name, x, top, room, { em: 4.2, most: 2 }) + 1
    y = write(entry.link, x, y, room, { face: 'link', most: 2 })
    y = write(`leads to ${entry.leads}`, x, y, room, { em: 2.8, ink: QUIET, most: 4 })
    y = write(entry.print, x, y + 1, room, { em: 2.8, most: 2 })
    for (const sentence of entry.preflight) {
      if (y > top + 52) break
      y = write(sentence, x, y, room, { em: 2.8, most: 2 })
    }
    const line = top + 66
    rule(x, line, room * 0.62)
    rule(x + room * 0.68, line, room * 0.32)
    write('Signature', x, line + 1, 40, { em: 2.6, ink: QUIET, most: 1 })
    write('Date', x + room * 0.68, line + 1, 30, { em: 2.6, ink: QUIET, most: 1 })
    if (i < entries.length - 1) rule(PAGE.margin, top + ENTRY_MM - 6, right - PAGE.margin)
  })
  return { title: head.left, unitMm: 1, width: PAGE.width, height: PAGE.height, marks }
}

/** No more lines than there is room for. */
const cut = (lines: readonly Line[], most: number) => lines.slice(0, most)
