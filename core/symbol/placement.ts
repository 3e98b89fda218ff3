import { z } from 'zod'
import { fileId } from './look.ts'
import { placedMarks, turnedMarks } from './marks.ts'
import type { Picture, Scene } from './scene.ts'

/** Where a piece lies on a picture, such as a poster: in millimetres of what is printed. */
export const placement = z.strictObject({
  file: fileId,
  /** How wide the picture is printed; its height follows. */
  widthMm: z
    .number({ error: 'Give the picture’s width in millimetres.' })
    .min(20, 'Print the picture at least 20 mm wide.')
    .max(5000, 'Print the picture no wider than 5 m.'),
  /** The middle of the piece, from the picture's upper left corner. */
  xMm: z.number().min(-5000).max(10_000),
  yMm: z.number().min(-5000).max(10_000),
  /** Degrees, clockwise. */
  turnDeg: z.number().min(-180).max(180),
})
export type Placement = z.infer<typeof placement>

/** A picture's sides, in any unit. */
interface Size {
  readonly width: number
  readonly height: number
}

const heightOf = ({ widthMm }: Placement, { width, height }: Size) => (widthMm * height) / width

/** A picture with a piece on it, in millimetres: all of it, as it is printed. */
export function laidOn(scene: Scene, where: Placement, size: Size): Scene {
  const { file, widthMm: width, xMm, yMm, turnDeg } = where
  const height = heightOf(where, size)
  const { unitMm } = scene
  const left = xMm - (scene.width * unitMm) / 2
  const top = yMm - (scene.height * unitMm) / 2
  const marks = turnedMarks(placedMarks(scene.marks, left, top, unitMm), turnDeg, [xMm, yMm])
  const picture: Picture = { kind: 'picture', file, x: 0, y: 0, width, height }
  return { title: scene.title, unitMm: 1, width, height, marks: [picture, ...marks] }
}

/** The same as the piece sees it: a scene as large as the piece, with what of the picture lies under it. */
export function onPicture(scene: Scene, where: Placement, size: Size): Scene {
  const { file, widthMm, xMm, yMm, turnDeg } = where
  const { unitMm } = scene
  const [width, height] = [widthMm / unitMm, heightOf(where, size) / unitMm]
  const middle = [scene.width / 2, scene.height / 2] as const
  const picture: Picture = {
    kind: 'picture',
    file,
    x: middle[0] - xMm / unitMm,
    y: middle[1] - yMm / unitMm,
    width,
    height,
  }
  return { ...scene, marks: [...turnedMarks([picture], -turnDeg, middle), ...scene.marks] }
}
