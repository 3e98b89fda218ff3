import { lineAt, lineOf, wrapped, type SetText } from './lettering.ts'
import { area, placedMarks } from './marks.ts'
import { circle, rectangle, type Outline } from './path.ts'
import { PRINT_BLACK, type Mark, type Scene, type Solid } from './scene.ts'

/** A place on a sheet, in millimetres from its upper left corner. */
interface Place {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** What stands in a cell of a sheet. */
export interface CellContent {
  readonly scene: Scene
  /** Lines of text under the symbol. */
  readonly captions: readonly string[]
}

/** What stands in a cell has this much room to its edges, as a share of its shorter side. */
const PADDING = 0.06
/** Captions are set no larger than this, and no wider than their cell, in millimetres. */
const CAPTION_MM = 2.6
const MARK_MM = { length: 5, width: 0.25, gap: 2 }
const REGISTRATION_MM = 2.5
/** Printed by every ink, so that it shows whether they meet. */
const REGISTRATION: Solid = { kind: 'solid', colour: '#000000', cmyk: [100, 100, 100, 100] }

/** A symbol with its captions does not fit into a cell. */
export class CellTooSmall extends RangeError {
  override readonly name = 'CellTooSmall'
}

const said = (mm: number) => String(Math.round(mm * 10) / 10)

/**
 * Lays a piece into a cell, in millimetres of the sheet: as large as it is planned, or as large as there is room for,
 * in the middle, with its captions under it.
 *
 * @throws CellTooSmall where it is to be as large as planned and is larger than the cell
 */
export function inCell(
  { scene, captions }: CellContent,
  cell: Place,
  fit: 'planned' | 'cell',
  setText: SetText,
): Mark[] {
  const padding = PADDING * Math.min(cell.width, cell.height)
  const [width, height] = [scene.width * scene.unitMm, scene.height * scene.unitMm]
  const room = { width: cell.width - 2 * padding, height: cell.height - 2 * padding }
  const em = Math.min(CAPTION_MM, cell.height / 12)
  // On cells that lie, texts stand beside the symbol: there is room for both to be large.
  const isBeside = captions.length > 0 && cell.width > 1.5 * cell.height
  const beside = isBeside
    ? Math.max(0, room.width - Math.min(room.height * (width / height), room.width * 0.5))
    : 0
  const lines = isBeside
    ? captions.flatMap((text) => wrapped(text, 'caption', em, Math.max(em, beside - padding), setText))
    : captions.map((text) => lineOf(setText(text, 'caption'), em, room.width))
  const below = isBeside ? 0 : lines.reduce((sum, line) => sum + line.height, 0)
  const most = { width: room.width - beside, height: room.height - below }
  const scale = fit === 'planned' ? 1 : Math.min(most.width / width, most.height / height)
  // What is as large as planned may fill its cell to the edge: labels are cut there.
  const whole = { width: cell.width - beside, height: cell.height - below }
  if (scale <= 0 || (fit === 'planned' && (width > whole.width + 1e-6 || height > whole.height + 1e-6)))
    throw new CellTooSmall(
      `“${scene.title}” is ${said(width)} × ${said(height)} mm, and its cell has room for ${said(Math.max(0, whole.width))} × ${said(Math.max(0, whole.height))} mm. Make the cells larger, or have symbols fitted to them.`,
    )
  const drawn = { width: width * scale, height: height * scale }
  const left = isBeside ? cell.x + padding : cell.x + (cell.width - drawn.width) / 2
  const top = cell.y + (cell.height - below - drawn.height) / 2
  const marks = placedMarks(scene.marks, left, top, scene.unitMm * scale)
  let y = isBeside
    ? cell.y + (cell.height - lines.reduce((sum, line) => sum + line.height, 0)) / 2
    : top + drawn.height
  for (const line of lines) {
    const x = isBeside ? left + drawn.width + padding : cell.x + (cell.width - line.text.width * line.em) / 2
    marks.push(lineAt(line, x, y, PRINT_BLACK))
    y += line.height
  }
  return marks
}

/** Cut marks at the edges of cells, outside of them all; and marks by which inks are laid on one another. */
export function sheetMarks(
  cells: readonly Place[],
  sheet: { readonly width: number; readonly height: number },
  kind: 'none' | 'cut' | 'cut-and-registration',
): Mark[] {
  if (kind === 'none' || cells.length === 0) return []
  const columns = [...new Set(cells.flatMap(({ x, width }) => [x, x + width]))]
  const rows = [...new Set(cells.flatMap(({ y, height }) => [y, y + height]))]
  const [left, right, top, bottom] = [
    Math.min(...columns),
    Math.max(...columns),
    Math.min(...rows),
    Math.max(...rows),
  ]
  const { gap, width: thick } = MARK_MM
  const lengthIn = (free: number) => Math.max(0, Math.min(MARK_MM.length, free - gap))
  const cuts: Outline[] = []
  for (const x of columns)
    for (const [from, length] of [
      [top - gap - lengthIn(top), lengthIn(top)],
      [bottom + gap, lengthIn(sheet.height - bottom)],
    ] as const)
      if (length > 0) cuts.push(rectangle(x - thick / 2, from, thick, length))
  for (const y of rows)
    for (const [from, length] of [
      [left - gap - lengthIn(left), lengthIn(left)],
      [right + gap, lengthIn(sheet.width - right)],
    ] as const)
      if (length > 0) cuts.push(rectangle(from, y - thick / 2, length, thick))
  const marks: Mark[] = [area(cuts, PRINT_BLACK)]
  if (kind === 'cut') return marks
  const middle = { x: (left + right) / 2, y: (top + bottom) / 2 }
  const places = [
    [middle.x, top / 2, top],
    [middle.x, (bottom + sheet.height) / 2, sheet.height - bottom],
    [left / 2, middle.y, left],
    [(right + sheet.width) / 2, middle.y, sheet.width - right],
  ] as const
  for (const [x, y, free] of places)
    if (free > 2 * REGISTRATION_MM) marks.push(area(registration(x, y), REGISTRATION))
  return marks
}

/** A ring with a cross through it, in parts that do not lie on one another: areas are filled by the even-odd rule. */
function registration(x: number, y: number): Outline[] {
  const r = REGISTRATION_MM
  const { width: thick } = MARK_MM
  const [outer, inner] = [r * 0.6, r * 0.6 - thick]
  const upright = (from: number, to: number) => rectangle(x - thick / 2, y + from, thick, to - from)
  const lying = (from: number, to: number) => rectangle(x + from, y - thick / 2, to - from, thick)
  return [
    circle(x, y, outer),
    circle(x, y, inner),
    upright(-r, -outer),
    upright(-inner, inner),
    upright(outer, r),
    lying(-r, -outer),
    lying(-inner, -thick / 2),
    lying(thick / 2, inner),
    lying(outer, r),
  ]
}
