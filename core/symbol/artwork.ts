import { rgbOf, type Pixels } from './colourPixels.ts'
import { blockDamage, unusedCorrection, type BlockDamage } from './damage.ts'
import type { QrSymbol } from './encode.ts'
import { layoutOf, ROLES, type Role } from './layout.ts'

/** Grades from the best, as ISO/IEC 15415 gives them. */
export const GRADES = ['A', 'B', 'C', 'D', 'F'] as const
export type Grade = (typeof GRADES)[number]

/** What one measure came to. */
export interface Graded {
  readonly grade: Grade
  /** What was measured; see the measure for its unit. */
  readonly value: number
}

/**
 * The grades of an artwork by the measures of ISO/IEC 15415. They are of the artwork, which printing only lowers. How
 * even its grid is, is not measured: a drawing's grid is exact.
 */
export interface ArtworkGrades {
  /** Difference of the lightest and the darkest module, as a share of full reflectance. */
  readonly contrast: Graded
  /** How far the modules of the worst codewords that error correction must read stand off the threshold: 1 is all the way. */
  readonly modulation: Graded
  /** The share of the modules of the worst fixed pattern that are wrong. */
  readonly fixedPattern: Graded
  /** How much wider than high a module is, or the other way round. */
  readonly axial: Graded
  /** The share of the error correction that is left. */
  readonly correction: Graded
  readonly decode: Graded
  /** The lowest of all. */
  readonly overall: Grade
  /** What each block of codewords has lost. */
  readonly blocks: readonly BlockDamage[]
}

/** Limits of grades A to D (ISO/IEC 15415, from memory). */
const LIMITS = {
  contrast: [0.7, 0.55, 0.4, 0.2],
  modulation: [0.5, 0.4, 0.3, 0.2],
  axial: [0.06, 0.08, 0.1, 0.12],
  correction: [0.62, 0.5, 0.37, 0.25],
} as const

const gradeAt = (index: number): Grade => GRADES[index === -1 ? 4 : index] ?? 'F'
/** Values are often sums of fractions: a hair below a limit is on it. */
const HAIR = 1e-9
const atLeast = (limits: readonly number[], value: number): Graded => ({
  grade: gradeAt(limits.findIndex((limit) => value >= limit - HAIR)),
  value,
})
const atMost = (limits: readonly number[], value: number): Graded => ({
  grade: gradeAt(limits.findIndex((limit) => value <= limit + HAIR)),
  value,
})
const worst = (grades: readonly Grade[]): Grade =>
  gradeAt(Math.max(...grades.map((grade) => GRADES.indexOf(grade))))
const best = (grades: readonly Grade[]): Grade =>
  gradeAt(Math.min(...grades.map((grade) => GRADES.indexOf(grade))))

/** How much light a colour throws back, 0 to 1: its relative luminance (WCAG 2.2). */
export function reflectance(red: number, green: number, blue: number): number {
  const linear = (value: number) => {
    const share = value / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  }
  return 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue)
}

/** The contrast ratio of two colours as `#rrggbb`, 1 to 21 (WCAG 2.2). */
export function contrastRatio(one: string, other: string): number {
  const [a, b] = [one, other].map((colour) => reflectance(...rgbOf(colour))) as [number, number]
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05)
}

/** Where a symbol lies in a picture: its upper left module's corner, and the pixels a module. */
export interface Grid {
  readonly x: number
  readonly y: number
  readonly module: number
  /** Modules of quiet zone about it that are measured as well. */
  readonly quiet: number
}

/** How much of a module is measured: eight tenths of its width (ISO/IEC 15415, from memory). */
const APERTURE = 0.8

/** What modules throw back, quiet zone included, rows from the top; what is transparent shows the paper. */
export function moduleReflectances(pixels: Pixels, side: number, grid: Grid, paper = 1): Float64Array {
  const across = side + 2 * grid.quiet
  const measured = new Float64Array(across * across)
  for (let row = 0; row < across; row++)
    for (let column = 0; column < across; column++)
      measured[row * across + column] = meanAbout(
        pixels,
        grid.x + (column - grid.quiet + 0.5) * grid.module,
        grid.y + (row - grid.quiet + 0.5) * grid.module,
        (grid.module * APERTURE) / 2,
        paper,
      )
  return measured
}

function meanAbout({ width, height, data }: Pixels, x: number, y: number, radius: number, paper: number) {
  let sum = 0
  let count = 0
  for (let row = Math.max(0, Math.floor(y - radius)); row <= Math.min(height - 1, y + radius); row++)
    for (
      let column = Math.max(0, Math.floor(x - radius));
      column <= Math.min(width - 1, x + radius);
      column++
    ) {
      if (Math.hypot(column + 0.5 - x, row + 0.5 - y) > radius) continue
      const i = (row * width + column) * 4
      const opaque = (data[i + 3] ?? 0) / 255
      sum += reflectance(data[i] ?? 0, data[i + 1] ?? 0, data[i + 2] ?? 0) * opaque + paper * (1 - opaque)
      count++
    }
  return count === 0 ? paper : sum / count
}

/**
 * Grades what modules throw back against what they should be.
 *
 * @param measured from `moduleReflectances`, with `quiet` modules about the symbol
 * @param stretch how many times wider than high a module is printed
 */
export function gradeArtwork(
  symbol: Pick<QrSymbol, 'modules' | 'side' | 'version' | 'level'>,
  measured: Float64Array,
  quiet: number,
  stretch = 1,
): ArtworkGrades {
  const { side, version, level } = symbol
  const across = side + 2 * quiet
  const at = (x: number, y: number) => measured[(y + quiet) * across + x + quiet] ?? 1
  const [lightest, darkest] = [Math.max(...measured), Math.min(...measured)]
  const span = lightest - darkest
  const threshold = (lightest + darkest) / 2
  const dark = (x: number, y: number) => symbol.modules[y]?.[x] ?? false
  const isWrong = (x: number, y: number) => at(x, y) < threshold !== dark(x, y)
  /** How far a module stands off the threshold, on its own side of it. */
  const standsOff = (x: number, y: number) =>
    span === 0 || isWrong(x, y) ? 0 : (2 * Math.abs(at(x, y) - threshold)) / span
  const blocks = blockDamage(version, level, isWrong)
  const left = unusedCorrection(blocks)
  const correction = atLeast(LIMITS.correction, left)
  const decode: Graded = { grade: left >= 0 && span > 0 ? 'A' : 'F', value: left >= 0 ? 1 : 0 }
  const graded = {
    contrast: atLeast(LIMITS.contrast, span),
    modulation: modulation(version, level, standsOff),
    fixedPattern: fixedPattern(version, isWrong),
    axial: atMost(LIMITS.axial, Math.abs(stretch - 1) / ((stretch + 1) / 2)),
    correction,
    decode,
  }
  return { ...graded, overall: worst(Object.values(graded).map(({ grade }) => grade)), blocks }
}

/**
 * Of each grade's limit: were all codewords below it misread, how much correction would be left? The grade is the best
 * of the lower of the two (ISO/IEC 15415, modulation, from memory).
 */
function modulation(
  version: number,
  level: QrSymbol['level'],
  standsOff: (x: number, y: number) => number,
): Graded {
  const reached = LIMITS.modulation.map((limit, i) => {
    const blocks = blockDamage(version, level, (x, y) => standsOff(x, y) < limit - HAIR)
    return worst([gradeAt(i), atLeast(LIMITS.correction, unusedCorrection(blocks)).grade])
  })
  const grade = best([...reached, 'F'])
  return { grade, value: grade === 'F' ? 0 : (LIMITS.modulation[GRADES.indexOf(grade)] ?? 0) }
}

/** Wrong modules of a finder pattern that each grade allows, and shares of those of other patterns (ISO/IEC 15415, annex for QR codes, from memory). */
const FINDER_WRONG = [0, 1, 2, 3]
const TIMING_WRONG = [0, 0.07, 0.11, 0.14]
const ALIGNMENT_WRONG = [0, 0.1, 0.2, 0.3]
const FINDER_ROLES: readonly Role[] = ['finder-ring', 'finder-centre', 'separator']

function fixedPattern(version: number, isWrong: (x: number, y: number) => boolean): Graded {
  const { side, roles, finders, alignments } = layoutOf(version)
  const roleAt = (x: number, y: number) => ROLES[roles[y * side + x] ?? 0] ?? 'data'
  const counts = (x: number, y: number, radius: number, among: readonly Role[]) => {
    let [wrong, all] = [0, 0]
    for (let dy = -radius; dy <= radius; dy++)
      for (let dx = -radius; dx <= radius; dx++) {
        const [column, row] = [x + dx, y + dy]
        if (column < 0 || row < 0 || column >= side || row >= side || !among.includes(roleAt(column, row)))
          continue
        all++
        if (isWrong(column, row)) wrong++
      }
    return { wrong, all }
  }
  const graded: Graded[] = finders.map(([x, y]) => {
    const { wrong, all } = counts(x, y, 4, FINDER_ROLES)
    return { grade: atMost(FINDER_WRONG, wrong).grade, value: wrong / all }
  })
  const timing = counts(Math.floor(side / 2), Math.floor(side / 2), side, ['timing'])
  graded.push(atMost(TIMING_WRONG, timing.wrong / timing.all))
  if (alignments.length > 0) {
    const damaged = alignments.filter(
      ([x, y]) => counts(x, y, 2, ['alignment-ring', 'alignment-centre']).wrong > 0,
    ).length
    graded.push(atMost(ALIGNMENT_WRONG, damaged / alignments.length))
  }
  return {
    grade: worst(graded.map(({ grade }) => grade)),
    value: Math.max(...graded.map(({ value }) => value)),
  }
}
