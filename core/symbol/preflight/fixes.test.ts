import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { jsqr, zxing } from '../../../bench/decoders.ts'
import { reflectance } from '../artwork.ts'
import { rgbOf } from '../colourPixels.ts'
import { printedSymbol } from '../freeLevel.ts'
import { PLAIN_LOOK, type Look } from '../look.ts'
import { darkened } from './fixes.ts'
import { CONDITIONS, fixesFor, proof, type Piece, type ProofParts } from './index.ts'

const LOGO = 'b'.repeat(64)
const PARTS: ProofParts = {
  text: () => ({ width: 0, outlines: [] }),
  pictureSize: () => ({ width: 8, height: 8 }),
  pictures: new Map([[LOGO, { width: 8, height: 8, data: new Uint8ClampedArray(256).fill(255) }]]),
  decoders: [zxing, jsqr],
}
const TEXT = 'HTTPS://GO.SALTMARSH.EXAMPLE/PIER'
const piece = (look: Look, more: Partial<Piece> = {}): Piece => ({
  symbol: printedSymbol(TEXT, 'M'),
  look,
  mm: 30,
  link: '',
  viewingM: 0.3,
  ...more,
})
const DECISIVE = CONDITIONS.filter(({ name }) =>
  ['far', 'tilt', 'turn', 'dim', 'ink-spread', 'ink-loss'].includes(name),
)
const tint = (rgb: string) => ({ rgb, cmyk: null })
const solid = (rgb: string) => ({ kind: 'solid' as const, tint: tint(rgb) })
const logo = (share: number): NonNullable<Look['logo']> => ({
  file: LOGO,
  share,
  margin: 0,
  plate: 'square',
  plateTint: tint('#ffffff'),
  cleared: true,
})
const CASES: [string, Piece, string][] = [
  ['pale ink', piece({ ...PLAIN_LOOK, ink: solid('#e8c85a') }), 'darken'],
  ['a dark ground', piece({ ...PLAIN_LOOK, ink: solid('#101010'), ground: solid('#444444') }), 'lighten'],
  ['a large logo', piece({ ...PLAIN_LOOK, logo: logo(0.4) }), 'shrink-logo'],
  [
    'a large logo with a margin',
    piece({ ...PLAIN_LOOK, logo: { ...logo(0.4), margin: 1 } }, { mm: 40 }),
    'shrink-logo',
  ],
  ['thin dots', piece({ ...PLAIN_LOOK, modules: { shape: 'dot', size: 0.4 } }), 'widen'],
  [
    'round patterns',
    piece({
      ...PLAIN_LOOK,
      finder: { ring: 'circle', centre: 'circle', ringTint: null, centreTint: null },
    }),
    'plain-patterns',
  ],
  ['people far away', piece(PLAIN_LOOK, { viewingM: 5 }), 'enlarge'],
  ['narrow modules', piece(PLAIN_LOOK, { mm: 12 }), 'enlarge'],
]

describe('a fix', () => {
  it.each(CASES)(
    'for %s is offered, and makes the piece ready',
    async (_what, failing, id) => {
      const before = await proof(failing, PARTS, DECISIVE)
      expect(before.readiness).not.toBe('ready')
      const fix = fixesFor(failing, before).find((each) => each.id === id)
      if (!fix) throw new Error(`Not offered: ${id}`)
      const { level, ...set } = fix.set
      const mended = { ...failing, ...set, symbol: level ? printedSymbol(TEXT, level) : failing.symbol }
      expect((await proof(mended, PARTS, DECISIVE)).readiness).toBe('ready')
    },
    30_000,
  )

  it('is not offered for what is ready', async () => {
    const plain = piece(PLAIN_LOOK)
    expect(fixesFor(plain, await proof(plain, PARTS, DECISIVE))).toEqual([])
  }, 30_000)

  it('darkens a colour to as much light as is allowed, and keeps its hue', () => {
    const channel = fc.integer({ min: 1, max: 255 })
    fc.assert(
      fc.property(
        fc.tuple(channel, channel, channel),
        fc.double({ min: 0.02, max: 1, noNaN: true }),
        (rgb, most) => {
          const colour = `#${rgb.map((value) => value.toString(16).padStart(2, '0')).join('')}`
          const [red, green, blue] = rgbOf(darkened(tint(colour), most).rgb)
          expect(reflectance(red, green, blue)).toBeLessThanOrEqual(most + 0.02)
          const order = (values: readonly number[]) => values.map((value, i) => [value, i] as const)
          for (const [a, i] of order(rgb))
            for (const [b, j] of order(rgb))
              if (a > b) expect([red, green, blue][i]).toBeGreaterThanOrEqual([red, green, blue][j] ?? 0)
        },
      ),
    )
  })
})
