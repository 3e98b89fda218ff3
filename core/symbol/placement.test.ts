import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { frameOf, rendered } from '../../bench/ghostscript.ts'
import { zxing } from '../../bench/decoders.ts'
import { sceneColours, type Pixels } from './colourPixels.ts'
import { encode } from './encode.ts'
import { sceneEps } from './eps.ts'
import { PLAIN_LOOK } from './look.ts'
import { laidOn, onPicture, type Placement } from './placement.ts'
import { styledScene } from './styled.ts'
import { sceneSvg } from './svg.ts'

const POSTER = 'd'.repeat(64)
const TEXT = 'HTTPS://GO.SALTMARSH.EXAMPLE/PIER'
const PARTS = { text: () => ({ width: 0, outlines: [] }), pictureSize: () => null }
/** A poster, left half red and right half blue. */
const PIXELS: Pixels = (() => {
  const data = new Uint8ClampedArray(40 * 60 * 4)
  for (let i = 0; i < 40 * 60; i++) data.set(i % 40 < 20 ? [220, 40, 40, 255] : [40, 40, 220, 255], i * 4)
  return { width: 40, height: 60, data }
})()
const pictures = new Map([[POSTER, PIXELS]])
const scene = styledScene(encode(TEXT, 'M'), PLAIN_LOOK, 40, 'Pier', '', PARTS)
const where = (more: Partial<Placement> = {}): Placement => ({
  file: POSTER,
  widthMm: 100,
  xMm: 50,
  yMm: 75,
  turnDeg: 0,
  ...more,
})

describe('a piece on a picture', () => {
  it('is as large as the picture is printed, and is read where it lies', async () => {
    const whole = laidOn(scene, where({ turnDeg: 30, xMm: 40, yMm: 60 }), PIXELS)
    expect([whole.width * whole.unitMm, whole.height * whole.unitMm]).toEqual([100, 150])
    const { width, height, data } = sceneColours(whole, 6, pictures)
    expect(await zxing({ width, height, data: new Uint8ClampedArray(data) })).toBe(TEXT)
    const dpi = 150
    const side = Math.round((100 / 25.4) * dpi)
    const drawn = rendered(sceneEps(whole, 'rgb', pictures), 'bitrgb', dpi)
    expect(await zxing(frameOf(drawn, side, Math.floor(drawn.length / side / 3)))).toBe(TEXT)
    expect(sceneSvg(whole, () => 'data:,')).toContain(
      '<image href="data:," x="0" y="0" width="100" height="150" ',
    )
  }, 30_000)

  it('sees of the picture what lies under it, however it is turned', () => {
    // The pictures of both views are the same where the piece lies, turned by as much.
    const bare = { ...scene, marks: [] }
    const places = fc.record({
      xMm: fc.integer({ min: 30, max: 70 }),
      yMm: fc.integer({ min: 30, max: 120 }),
      turnDeg: fc.integer({ min: -180, max: 180 }),
    })
    fc.assert(
      fc.property(
        places,
        fc.integer({ min: -14, max: 14 }),
        fc.integer({ min: -14, max: 14 }),
        (place, dx, dy) => {
          const laid = where(place)
          const whole = sceneColours(laidOn(bare, laid, PIXELS), 4, pictures)
          const seen = sceneColours(onPicture(bare, laid, PIXELS), 4 * bare.unitMm, pictures)
          const angle = (place.turnDeg * Math.PI) / 180
          const at = (pixels: Pixels, x: number, y: number) => {
            const i = (Math.round(y * 4) * pixels.width + Math.round(x * 4)) * 4
            return [...pixels.data.subarray(i, i + 3)]
          }
          const x = place.xMm + dx * Math.cos(angle) - dy * Math.sin(angle)
          const y = place.yMm + dx * Math.sin(angle) + dy * Math.cos(angle)
          // On the line between the colours a pixel may be either, or both.
          fc.pre(Math.abs(x - 50) > 1.5)
          const middle = (bare.width * bare.unitMm) / 2
          expect(at(seen, middle + dx, middle + dy)).toEqual(at(whole, x, y))
        },
      ),
      { numRuns: 60 },
    )
  })
})
