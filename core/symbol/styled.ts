import type { QrSymbol } from './encode.ts'
import { layoutOf, ROLES, type Role } from './layout.ts'
import { lineAt, type Line } from './lettering.ts'
import type { Look, PatternShape, Tint } from './look.ts'
import type { LookParts } from './lookParts.ts'
import { area, inkFor, placedMarks, solidInk, type Box } from './marks.ts'
import { moduleOutlines } from './modules.ts'
import { circle, placed, rectangle, roundedRectangle, type Outline } from './path.ts'
import type { Area, Mark, Picture, Scene } from './scene.ts'
import { frameOutlines, surroundOf } from './surround.ts'

/** What rounded corners take of a side: no more, so that the modules in the corners are still dark where they are measured. */
const PATTERN_ROUNDING = 0.2

function pattern(shape: PatternShape, x: number, y: number, side: number): Outline {
  const [left, top] = [x + 0.5 - side / 2, y + 0.5 - side / 2]
  switch (shape) {
    case 'square':
      return rectangle(left, top, side, side)
    case 'rounded':
      return roundedRectangle(left, top, side, side, side * PATTERN_ROUNDING)
    case 'circle':
      return circle(x + 0.5, y + 0.5, side / 2)
  }
}
const ring = (shape: PatternShape, x: number, y: number, side: number): Outline[] => [
  pattern(shape, x, y, side),
  pattern(shape, x, y, side - 2),
]

/** Where the logo of a look lies on a symbol, in modules from the symbol's corner; null where there is none to draw. */
function logoBox({ logo }: Look, side: number, { pictureSize }: LookParts): Box | null {
  const size = logo && pictureSize(logo.file)
  if (!logo || !size) return null
  const longest = Math.max(size.width, size.height)
  const [width, height] = [size.width, size.height].map((each) => (each / longest) * logo.share * side) as [
    number,
    number,
  ]
  return { x: (side - width) / 2, y: (side - height) / 2, width, height }
}

/** Whether a logo with its margin, or its plate, touches a module. */
function touches(logo: NonNullable<Look['logo']>, box: Box, side: number) {
  const { margin } = logo
  const radius = plateRadius(box, margin)
  return (x: number, y: number): boolean => {
    if (logo.plate === 'round') {
      const near = (at: number) => Math.max(at, Math.min(side / 2, at + 1))
      return Math.hypot(near(x) - side / 2, near(y) - side / 2) < radius
    }
    return (
      x + 1 > box.x - margin &&
      x < box.x + box.width + margin &&
      y + 1 > box.y - margin &&
      y < box.y + box.height + margin
    )
  }
}

const plateRadius = ({ width, height }: Box, margin: number) => Math.max(width, height) / 2 + margin

function logoMarks(look: Look, box: Box, quiet: number): Mark[] {
  const { logo } = look
  if (!logo) return []
  const [x, y] = [box.x + quiet, box.y + quiet]
  const picture: Picture = { kind: 'picture', file: logo.file, x, y, width: box.width, height: box.height }
  const { margin } = logo
  if (logo.plate === 'none') return [picture]
  const plate =
    logo.plate === 'round'
      ? circle(x + box.width / 2, y + box.height / 2, plateRadius(box, margin))
      : rectangle(x - margin, y - margin, box.width + 2 * margin, box.height + 2 * margin)
  return [area([plate], solidInk(logo.plateTint)), picture]
}

/** The symbol itself, its upper left module at (quiet, quiet). */
function symbolMarks(symbol: Pick<QrSymbol, 'modules' | 'version'>, look: Look, parts: LookParts): Mark[] {
  const { side, roles, finders, alignments } = layoutOf(symbol.version)
  const quiet = look.quietZone
  const { ring: ringShape, centre: centreShape, ringTint, centreTint } = look.finder
  const roleAt = (x: number, y: number): Role => ROLES[roles[y * side + x] ?? 0] ?? 'data'
  /** What is square and of one ink is drawn with the data, in one outline where it touches. */
  const isPlain = look.modules.shape === 'square' && look.modules.size === 1
  const ringIsData = isPlain && ringShape === 'square' && ringTint === null
  const centreIsData = isPlain && centreShape === 'square' && centreTint === null
  const alignmentIsData = look.alignment === 'modules'
  const box = logoBox(look, side, parts)
  const isCleared = look.logo?.cleared && box ? touches(look.logo, box, side) : () => false
  const withData: Readonly<Partial<Record<Role, boolean>>> = {
    'finder-ring': ringIsData,
    'finder-centre': centreIsData,
    'alignment-ring': alignmentIsData,
    'alignment-centre': alignmentIsData,
  }
  const dark = (x: number, y: number): boolean => {
    if (!(symbol.modules[y]?.[x] ?? false)) return false
    const role = roleAt(x, y)
    if (!(withData[role] ?? true)) return false
    return role !== 'data' || !isCleared(x, y)
  }
  const ink = inkFor(look.ink, { x: quiet, y: quiet, width: side, height: side })
  const inPlace = (outlines: readonly Outline[]) => outlines.map((outline) => placed(outline, quiet, quiet))
  const marks: Mark[] = [area(inPlace(moduleOutlines(dark, side, look.modules)), ink)]
  const draw = (outlines: readonly Outline[], own: Tint | null) => {
    if (outlines.length > 0) marks.push(area(inPlace(outlines), own ? solidInk(own) : ink))
  }
  if (!ringIsData)
    draw(
      finders.flatMap(([x, y]) => ring(ringShape, x, y, 7)),
      ringTint,
    )
  if (!centreIsData)
    draw(
      finders.map(([x, y]) => pattern(centreShape, x, y, 3)),
      centreTint,
    )
  if (look.alignment !== 'modules') {
    const shape = look.alignment
    draw(
      alignments.flatMap(([x, y]) => [...ring(shape, x, y, 5), pattern(shape, x, y, 1)]),
      null,
    )
  }
  return box ? [...marks, ...logoMarks(look, box, quiet)] : marks
}

/**
 * A symbol in a look, as it is printed. Nothing is checked: whether it can be read is what preflight measures.
 *
 * @param mm printed side of the symbol with its quiet zone, in millimetres; what surrounds it comes on top
 * @param title what screen readers read out
 * @param link the short link as people type it, for looks that show it
 */
export function styledScene(
  symbol: Pick<QrSymbol, 'modules' | 'side' | 'version'>,
  look: Look,
  mm: number,
  title: string,
  link: string,
  parts: LookParts,
): Scene {
  const full = symbol.side + 2 * look.quietZone
  const unitMm = mm / full
  const marks = symbolMarks(symbol, look, parts)
  const { surround } = look
  if (!surround) {
    const whole = { x: 0, y: 0, width: full, height: full }
    return { title, unitMm, width: full, height: full, marks: [...groundMarks(look, whole, 0), ...marks] }
  }
  const { edge, top, caption, lines } = surroundOf(surround, symbol.side, full, link, parts)
  const width = full + 2 * edge
  const height = top + full + lines.reduce((sum, line) => sum + line.height, 0) + edge
  const ink = solidInk(surround.textTint)
  const centred = (line: Line, y: number): Area =>
    lineAt(line, (width - line.text.width * line.em) / 2, y, ink)
  const written: Area[] = caption ? [centred(caption, edge)] : []
  let y = top + full
  for (const line of lines) {
    written.push(centred(line, y))
    y += line.height
  }
  const whole = { x: 0, y: 0, width, height }
  const frame =
    surround.line > 0
      ? [area(frameOutlines(whole, surround.line, surround.corner), solidInk(surround.tint))]
      : []
  return {
    title,
    unitMm,
    width,
    height,
    marks: [
      ...groundMarks(look, whole, surround.corner),
      ...placedMarks(marks, edge, top),
      ...frame,
      ...written,
    ],
  }
}

function groundMarks({ ground }: Look, box: Box, corner: number): Mark[] {
  if (!ground) return []
  if (ground.kind === 'picture') return [{ kind: 'picture', file: ground.file, ...box }]
  return [area([roundedRectangle(0, 0, box.width, box.height, corner)], inkFor(ground, box))]
}
