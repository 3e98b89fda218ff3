import fc from 'fast-check'
import { scanRGBABuffer } from '@undecaf/zbar-wasm'
import { describe, expect, it } from 'vitest'
import { zxing } from '../../bench/decoders.ts'
import { encode, fullSide, LEVELS, sceneSvg, symbolScene } from './index.ts'
import { sceneColours, type Pixels } from './colourPixels.ts'
import { look, MODULE_SHAPES, PATTERN_SHAPES, PLAIN_LOOK, type Look } from './look.ts'
import { NEUTRAL_LOOKS } from './neutral.ts'
import { circle, rectangle } from './path.ts'
import type { LookParts } from './lookParts.ts'
import { styledScene } from './styled.ts'

const LOGO = 'a'.repeat(64)
const PARTS: LookParts = {
  // Each letter a square of half an em.
  text: (text) => ({
    width: text.length * 0.6,
    outlines: [...text].map((_, i) => rectangle(i * 0.6, -0.5, 0.5, 0.5)),
  }),
  pictureSize: (file) => (file === LOGO ? { width: 20, height: 10 } : null),
}
const PICTURES = new Map([
  [
    LOGO,
    {
      width: 20,
      height: 10,
      data: new Uint8ClampedArray(20 * 10 * 4).fill(255).map((v, i) => (i % 4 === 1 ? 40 : v)),
    },
  ],
])
const scene = (text: string, chosen: Look, level: (typeof LEVELS)[number] = 'M', version?: number) =>
  styledScene(encode(text, level, version), chosen, 30, '', 'go.example/a', PARTS)

/** What lies on white paper, as two decoders that share nothing read it. */
async function readByTwo({ width, height, data }: Pixels) {
  const paper = data.map((value, i) => {
    const opaque = (data[i - (i % 4) + 3] ?? 0) / 255
    return i % 4 === 3 ? 255 : value * opaque + 255 * (1 - opaque)
  })
  const [zbar] = await scanRGBABuffer(paper.buffer, width, height)
  return [await zxing({ width, height, data: paper }), zbar?.decode()]
}

describe('a look', () => {
  it('that is plain draws the very symbol that was drawn before there were looks', () => {
    for (const version of [1, 2, 7, 20]) {
      const symbol = encode('HTTPS://GO.SALTMARSH.EXAMPLE/PIER', 'L', Math.max(version, 2))
      const paths = (svg: string) => svg.match(/ d="[^"]+"/g)
      expect(paths(sceneSvg(styledScene(symbol, PLAIN_LOOK, 30, 'x', '', PARTS)))).toEqual(
        paths(sceneSvg(symbolScene(symbol, 30, 'x'))),
      )
    }
  })

  it.each(NEUTRAL_LOOKS.map(({ name, look: each }) => [name, each] as const))(
    'that ships is sound and is read by both decoders: %s',
    async (_, each) => {
      expect(look.parse(each)).toEqual(each)
      for (const text of ['4711', 'HTTPS://GO.SALTMARSH.EXAMPLE/PIER', 'A'.repeat(120)])
        expect(await readByTwo(sceneColours(scene(text, each), 8))).toEqual([text, text])
    },
  )

  // Somehow: what a shape costs with each decoder, and from afar, is for preflight to measure.
  it('of every shape is read, at every level, in versions 1 to 10', async () => {
    const looks = fc.record({
      shape: fc.constantFrom(...MODULE_SHAPES),
      size: fc.constantFrom(0.8, 0.9, 1),
      ring: fc.constantFrom(...PATTERN_SHAPES),
      centre: fc.constantFrom(...PATTERN_SHAPES),
      alignment: fc.constantFrom('modules' as const, ...PATTERN_SHAPES),
      dark: fc.constantFrom('#000000', '#0c5a66', '#7b3f68'),
      other: fc.constantFrom('#000000', '#1f2a30', '#a9432f'),
      kind: fc.constantFrom('solid' as const, 'linear' as const, 'radial' as const),
      angle: fc.constantFrom(0, 45, 90, 200),
      ground: fc.constantFrom('#ffffff', '#faf8f3', null),
    })
    await fc.assert(
      fc.asyncProperty(
        looks,
        fc.constantFrom(...LEVELS),
        fc.integer({ min: 1, max: 10 }),
        async (
          { shape, size, ring, centre, alignment, dark, other, kind, angle, ground },
          level,
          version,
        ) => {
          const [from, to] = [
            { rgb: dark, cmyk: null },
            { rgb: other, cmyk: null },
          ]
          const each: Look = {
            ...PLAIN_LOOK,
            modules: { shape, size },
            finder: { ring, centre, ringTint: to, centreTint: null },
            alignment,
            ink: kind === 'solid' ? { kind, tint: from } : { kind, from, to, angle },
            ground: ground === null ? null : { kind: 'solid', tint: { rgb: ground, cmyk: null } },
          }
          const text = `V${String(version)}`
          const drawn = scene(text, each, level, version)
          // Phones look again and again, from somewhere else each time.
          for (const scale of [8, 5, 11])
            if ((await readByTwo(sceneColours(drawn, scale))).includes(text)) return
          expect.fail(`${text} was read by nobody`)
        },
      ),
      { numRuns: 40 },
    )
  }, 120_000)

  it('with a logo leaves out the modules it touches, or lays it over them; finder patterns stay', async () => {
    const logo = {
      file: LOGO,
      share: 0.25,
      margin: 0.5,
      plate: 'square' as const,
      plateTint: { rgb: '#ffffff', cmyk: null },
      cleared: true,
    }
    const text = 'HTTPS://GO.SALTMARSH.EXAMPLE/PIER'
    for (const cleared of [true, false])
      for (const plate of ['none', 'square', 'round'] as const) {
        const drawn = scene(text, { ...PLAIN_LOOK, logo: { ...logo, cleared, plate } }, 'H')
        expect(drawn.marks.filter(({ kind }) => kind === 'picture')).toHaveLength(1)
        expect(await readByTwo(sceneColours(drawn, 8, PICTURES))).toEqual([text, text])
      }
    const huge = scene(text, { ...PLAIN_LOOK, logo: { ...logo, share: 0.4, margin: 4 } }, 'H')
    const pixels = sceneColours(huge, 2)
    // The corner of the upper left finder pattern, four modules from the edge.
    expect(pixels.data[(8 * pixels.width + 8) * 4]).toBe(0)
  })

  it('surrounds the symbol and leaves it as large as it was', async () => {
    const surround = {
      line: 1,
      corner: 3,
      padding: 2,
      tint: { rgb: '#000000', cmyk: null },
      textTint: { rgb: '#000000', cmyk: null },
      caption: 'Scan for times',
      captionAt: 'above' as const,
      link: true,
    }
    const plain = scene('PIER', PLAIN_LOOK)
    const framed = scene('PIER', { ...PLAIN_LOOK, surround })
    expect(framed.unitMm).toBe(plain.unitMm)
    expect(framed.width).toBe(plain.width + 6)
    expect(framed.height).toBeGreaterThan(framed.width)
    expect(await readByTwo(sceneColours(framed, 8))).toEqual(['PIER', 'PIER'])
    // A caption that is too long for its line is set smaller, never wider than the symbol.
    const long = scene('PIER', { ...PLAIN_LOOK, surround: { ...surround, caption: 'M'.repeat(60) } })
    const xs = long.marks.flatMap((mark) =>
      mark.kind === 'area' ? mark.outlines.flatMap((outline) => outline.map(([x]) => x)) : [],
    )
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([0, long.width])
  })

  it('is as large as it says, with a wider quiet zone too', () => {
    const symbol = encode('PIER', 'M')
    const wide = styledScene(symbol, { ...PLAIN_LOOK, quietZone: 10 }, 30, '', '', PARTS)
    expect(wide.width * wide.unitMm).toBeCloseTo(30, 9)
    expect(wide.width).toBe(fullSide(symbol.side) + 12)
  })
})

describe('pixels in colour', () => {
  it('cover what areas cover: a circle by its area, half a pixel by half', () => {
    const drawn = sceneColours(
      {
        title: '',
        unitMm: 1,
        width: 20,
        height: 20,
        marks: [{ kind: 'area', outlines: [circle(10, 10, 7)], ink: { kind: 'solid', colour: '#ff0000' } }],
      },
      3,
    )
    let covered = 0
    for (let i = 3; i < drawn.data.length; i += 4) covered += (drawn.data[i] ?? 0) / 255
    expect(covered / 9).toBeCloseTo(Math.PI * 49, 0)
    const half = sceneColours(
      {
        title: '',
        unitMm: 1,
        width: 2,
        height: 1,
        marks: [
          { kind: 'area', outlines: [rectangle(0, 0, 2, 1)], ink: { kind: 'solid', colour: '#fff' } },
          { kind: 'area', outlines: [rectangle(0.5, 0, 1.5, 1)], ink: { kind: 'solid', colour: '#000' } },
        ],
      },
      1,
    )
    expect([...half.data]).toEqual([128, 128, 128, 255, 0, 0, 0, 255])
  })

  it('run from one colour into the other, as the SVG of the same scene says', () => {
    const ink = {
      kind: 'linear',
      from: [0, 0],
      to: [10, 0],
      stops: [
        { kind: 'solid', colour: '#000000' },
        { kind: 'solid', colour: '#ffffff' },
      ],
    } as const
    const drawn = {
      title: '',
      unitMm: 1,
      width: 10,
      height: 1,
      marks: [{ kind: 'area' as const, outlines: [rectangle(0, 0, 10, 1)], ink }],
    }
    const { data } = sceneColours(drawn, 1)
    expect(Array.from({ length: 10 }, (_, i) => data[i * 4])).toEqual([
      13, 38, 64, 89, 115, 140, 166, 191, 217, 242,
    ])
    expect(sceneSvg(drawn)).toContain(
      '<linearGradient id="linear_0_0_10_0_000000_ffffff" gradientUnits="userSpaceOnUse" x1="0" y1="0" x2="10" y2="0">',
    )
  })
})
