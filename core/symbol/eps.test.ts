import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { zxing } from '../../bench/decoders.ts'
import { frameOf, rendered } from '../../bench/ghostscript.ts'
import { cmykOf } from './cmyk.ts'
import { sceneEps, type ColourSpace } from './eps.ts'
import { encode } from './index.ts'
import { PLAIN_LOOK, type Look } from './look.ts'
import { rectangle } from './path.ts'
import type { Scene } from './scene.ts'
import { styledScene } from './styled.ts'

/** The box a document says it is printed in, in millimetres. */
function sizeMm(eps: string) {
  const [, right = '', top = ''] = /^%%HiResBoundingBox: 0 0 (\S+) (\S+)$/m.exec(eps) ?? []
  return [right, top].map((points) => (Number(points) * 25.4) / 72)
}

const TEXT = 'HTTPS://GO.SALTMARSH.EXAMPLE/PIER'
const PARTS = {
  text: () => ({ width: 1, outlines: [rectangle(0, -0.5, 1, 0.5)] }),
  pictureSize: () => ({ width: 2, height: 2 }),
}
const sceneOf = (look: Look, mm = 30) => styledScene(encode(TEXT, 'M'), look, mm, 'Pier (west) ä', '', PARTS)
const petrol = { rgb: '#0c5a66', cmyk: [90, 40, 45, 30] as [number, number, number, number] }

const DPI = 300
async function readBack(eps: string, scene: Scene) {
  // As many pixels as its millimetres are.
  const [width, height] = [scene.width, scene.height].map((units) =>
    Math.round((units * scene.unitMm * DPI) / 25.4),
  ) as [number, number]
  const bytes = rendered(eps, 'bitrgb', DPI)
  expect(bytes.length).toBe(width * height * 3)
  return zxing(frameOf(bytes, width, height))
}

describe('a scene as EPS, rendered by Ghostscript', () => {
  it.each<[string, Look]>([
    ['plain', PLAIN_LOOK],
    [
      'in curves and a gradient',
      {
        ...PLAIN_LOOK,
        modules: { shape: 'flowing', size: 1 },
        finder: { ring: 'rounded', centre: 'circle', ringTint: null, centreTint: petrol },
        ink: { kind: 'linear', from: petrol, to: { rgb: '#000000', cmyk: null }, angle: 45 },
        ground: { kind: 'radial', from: { rgb: '#ffffff', cmyk: null }, to: { rgb: '#faf8f3', cmyk: null } },
      },
    ],
  ])(
    '%s is as large as it says and is read back, in both colour spaces',
    async (_, look) => {
      for (const space of ['rgb', 'cmyk'] as const) {
        const scene = sceneOf(look)
        const eps = sceneEps(scene, space)
        for (const mm of sizeMm(eps)) expect(mm).toBeCloseTo(30, 3)
        expect(await readBack(eps, scene)).toBe(TEXT)
      }
    },
    30_000,
  )

  it('prints black as black ink alone', () => {
    const bytes = rendered(sceneEps(sceneOf(PLAIN_LOOK), 'cmyk'), 'bitcmyk', 72)
    let black = 0
    for (let i = 0; i < bytes.length; i += 4) {
      expect([bytes[i], bytes[i + 1], bytes[i + 2]]).toEqual([0, 0, 0])
      if (bytes[i + 3] === 255) black++
    }
    expect(black).toBeGreaterThan(1000)
  }, 30_000)

  it('keeps the four values that were said, and pictures where they lie', () => {
    const scene: Scene = {
      title: '',
      unitMm: 25.4 / 72,
      width: 4,
      height: 2,
      marks: [
        {
          kind: 'area',
          outlines: [rectangle(0, 0, 2, 2)],
          ink: { kind: 'solid', colour: petrol.rgb, cmyk: petrol.cmyk },
        },
        { kind: 'picture', file: 'p', x: 2, y: 0, width: 2, height: 2 },
      ],
    }
    // Red above green, to the left of blue and half-transparent black, which is gray on white.
    const data = new Uint8ClampedArray([255, 0, 0, 255, 0, 0, 255, 255, 0, 255, 0, 255, 0, 0, 0, 128])
    const pictures = new Map([['p', { width: 2, height: 2, data }]])
    const cmyk = rendered(sceneEps(scene, 'cmyk', pictures), 'bitcmyk', 72)
    const at = (x: number, y: number) => [...cmyk.subarray((y * 4 + x) * 4, (y * 4 + x) * 4 + 4)]
    expect(at(0, 0).map((value) => Math.round((value / 255) * 100))).toEqual([90, 40, 45, 30])
    expect(at(2, 0)).toEqual([0, 255, 255, 0])
    expect(at(3, 0)).toEqual([255, 255, 0, 0])
    expect(at(2, 1)).toEqual([255, 0, 255, 0])
    expect(at(3, 1).slice(0, 3)).toEqual([0, 0, 0])
    expect(at(3, 1)[3]).toBeGreaterThan(120)
    const rgb = rendered(sceneEps(scene, 'rgb', pictures), 'bitrgb', 72)
    expect([...rgb.subarray(0, 3)]).toEqual([12, 90, 102])
    expect([...rgb.subarray(6, 9)]).toEqual([255, 0, 0])
  }, 30_000)

  it('is plain text without long lines, whatever its title', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary' }),
        fc.constantFrom<ColourSpace>('rgb', 'cmyk'),
        (title, space) => {
          const eps = sceneEps({ ...sceneOf(PLAIN_LOOK), title }, space)
          expect(eps).toMatch(/^%!PS-Adobe-3\.0 EPSF-3\.0\n%%BoundingBox: 0 0 86 86\n/)
          expect(eps).toMatch(/^[\x20-\x7e\n]*$/)
          expect(/^%%Title: \((?:[^()\\]|\\.)*\)$/m.test(eps)).toBe(true)
        },
      ),
      { numRuns: 20 },
    )
  })
})

describe('colours of a press', () => {
  it('are black alone for every gray, and never more than there is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 0xffffff }), (value) => {
        const colour = `#${value.toString(16).padStart(6, '0')}`
        const inks = cmykOf({ kind: 'solid', colour })
        expect(inks.every((ink) => ink >= 0 && ink <= 1)).toBe(true)
        // And back: each of red, green and blue is what its ink and black leave.
        const back = [0, 1, 2].map((i) => Math.round(255 * (1 - (inks[i] ?? 0)) * (1 - inks[3])))
        expect(back).toEqual([value >> 16, (value >> 8) & 255, value & 255])
        const gray = value & 255
        expect(
          cmykOf({ kind: 'solid', colour: `#${gray.toString(16).padStart(2, '0').repeat(3)}` }).slice(0, 3),
        ).toEqual([0, 0, 0])
      }),
    )
  })
})
