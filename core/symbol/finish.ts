import { z } from 'zod'
import type { QrSymbol } from './encode.ts'
import type { Look } from './look.ts'
import { rectangle } from './path.ts'
import { PRINT_BLACK, type Area, type Scene } from './scene.ts'
import { inkFor, placedMarks } from './marks.ts'

/** Files that printers and screens take. */
export const FILE_FORMATS = ['svg', 'pdf', 'eps', 'png', 'jpeg', 'webp'] as const
export type FileFormat = (typeof FILE_FORMATS)[number]
export const VECTOR_FORMATS: readonly FileFormat[] = ['svg', 'pdf', 'eps']
export const DPI_MIN = 36
export const DPI_MAX = 2400

/** How a piece becomes a file. */
export const finish = z.strictObject({
  format: z
    .enum(FILE_FORMATS, { error: `Choose one of the formats ${FILE_FORMATS.join(', ')}.` })
    .default('pdf'),
  /** How colours are said in a PDF or EPS; other formats know red, green and blue alone. */
  colours: z.enum(['rgb', 'cmyk']).default('cmyk'),
  dpi: z.coerce
    .number({ error: 'Give the resolution in dots per inch.' })
    .int()
    .min(DPI_MIN, `Give at least ${String(DPI_MIN)} dpi.`)
    .max(DPI_MAX, 'Give at most 2,400 dpi.')
    .default(300),
  /** Whether the piece's size is that of the symbol with its quiet zone, or of its modules alone. */
  measure: z.enum(['quiet-zone', 'modules']).default('quiet-zone'),
  /** With its surround, or without. */
  surround: z.enum(['with', 'without']).default('with'),
  ground: z.enum(['filled', 'transparent']).default('filled'),
  bleedMm: z.coerce
    .number({ error: 'Give the bleed in millimetres.' })
    .min(0, 'A bleed cannot be below 0 mm.')
    .max(20, 'Give a bleed of at most 20 mm.')
    .default(0),
  cutMarks: z.enum(['yes', 'no']).default('no'),
})
export type Finish = z.output<typeof finish>
export const DEFAULT_FINISH: Finish = finish.parse({})

/** Length and width of cut marks, and how far from the cut they begin at least. Common practice, no published source. */
const MARK_MM = { length: 5, width: 0.25, gap: 3 }

/** What is left of a look for a file. */
export function finishedLook(look: Look, { surround, ground }: Pick<Finish, 'surround' | 'ground'>): Look {
  return {
    ...look,
    ...(surround === 'without' ? { surround: null } : {}),
    ...(ground === 'transparent' ? { ground: null } : {}),
  }
}

/** The side that a symbol is drawn at, quiet zone included, so that what is measured of it is `mm` wide. */
export function drawnMm(
  symbol: Pick<QrSymbol, 'side'>,
  { quietZone }: Pick<Look, 'quietZone'>,
  mm: number,
  { measure }: Pick<Finish, 'measure'>,
): number {
  return measure === 'modules' ? (mm * (symbol.side + 2 * quietZone)) / symbol.side : mm
}

/** A scene with what a printer needs about it. */
export interface Finished {
  readonly scene: Scene
  /** How far the cut lies from the edges of the scene, and how far the bleed reaches beyond the cut, in millimetres. */
  readonly trimMm: number
  readonly bleedMm: number
}

/** Lays a bleed and cut marks about a scene; without either it is the scene itself. */
export function finished(
  scene: Scene,
  look: Pick<Look, 'ground'>,
  { bleedMm, cutMarks }: Pick<Finish, 'bleedMm' | 'cutMarks'>,
): Finished {
  const marksMm = cutMarks === 'yes' ? Math.max(bleedMm, MARK_MM.gap) + MARK_MM.length : 0
  const trimMm = Math.max(bleedMm, marksMm)
  if (trimMm === 0) return { scene, trimMm, bleedMm }
  const { unitMm, width, height } = scene
  const trim = trimMm / unitMm
  const bleed = bleedMm / unitMm
  const { ground } = look
  const under: Area[] =
    bleed > 0 && ground && ground.kind !== 'picture'
      ? [
          {
            kind: 'area',
            outlines: [rectangle(trim - bleed, trim - bleed, width + 2 * bleed, height + 2 * bleed)],
            ink: inkFor(ground, { x: trim, y: trim, width, height }),
          },
        ]
      : []
  return {
    scene: {
      ...scene,
      width: width + 2 * trim,
      height: height + 2 * trim,
      marks: [
        ...under,
        ...placedMarks(scene.marks, trim, trim),
        ...(cutMarks === 'yes' ? [cutMarksAt(trim, trim, width, height, bleedMm, unitMm)] : []),
      ],
    },
    trimMm,
    bleedMm,
  }
}

/** Marks at the corners of a cut, outside of its bleed, in black alone. */
export function cutMarksAt(
  x: number,
  y: number,
  width: number,
  height: number,
  bleedMm: number,
  unitMm: number,
): Area {
  const gap = Math.max(bleedMm, MARK_MM.gap) / unitMm
  const length = MARK_MM.length / unitMm
  const thick = MARK_MM.width / unitMm
  const outlines = [x, x + width].flatMap((at) => [
    rectangle(at - thick / 2, y - gap - length, thick, length),
    rectangle(at - thick / 2, y + height + gap, thick, length),
  ])
  const lying = [y, y + height].flatMap((at) => [
    rectangle(x - gap - length, at - thick / 2, length, thick),
    rectangle(x + width + gap, at - thick / 2, length, thick),
  ])
  return { kind: 'area', outlines: [...outlines, ...lying], ink: PRINT_BLACK }
}
