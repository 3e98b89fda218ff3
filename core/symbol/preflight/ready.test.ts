import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { jsqr, zxing } from '../../../bench/decoders.ts'
import { LEVELS } from '../capacity.ts'
import { encode } from '../encode.ts'
import { MODULE_SHAPES, PATTERN_SHAPES, PLAIN_LOOK, type Look } from '../look.ts'
import { GOOD_VIEW } from './camera.ts'
import { goodDistance } from './conditions.ts'
import { CONDITIONS, proof, type ProofParts } from './index.ts'
import { subjectOf } from './proof.ts'
import { isRead } from './read.ts'

const LOGO = 'b'.repeat(64)
const PARTS: ProofParts = {
  text: () => ({ width: 0, outlines: [] }),
  pictureSize: () => ({ width: 8, height: 8 }),
  pictures: new Map([
    [
      LOGO,
      { width: 8, height: 8, data: new Uint8ClampedArray(256).map((_each, i) => (i % 4 === 3 ? 255 : 90)) },
    ],
  ]),
  decoders: [zxing, jsqr],
}
const colour = fc
  .tuple(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 0, max: 255 }), fc.integer({ min: 0, max: 255 }))
  .map((rgb) => ({ rgb: `#${rgb.map((value) => value.toString(16).padStart(2, '0')).join('')}`, cmyk: null }))
const solid = colour.map((tint) => ({ kind: 'solid' as const, tint }))
const paint = fc.oneof(
  solid,
  fc.record({
    kind: fc.constant('linear' as const),
    from: colour,
    to: colour,
    angle: fc.integer({ min: 0, max: 360 }),
  }),
  fc.record({ kind: fc.constant('radial' as const), from: colour, to: colour }),
)
/** Most often what is harmless: of looks by chance alone few are ever ready. */
const mostly = <T, U>(usual: T, bold: fc.Arbitrary<U>) =>
  fc.oneof({ weight: 4, arbitrary: fc.constant(usual) }, { weight: 1, arbitrary: bold })
/** Looks as bold as the job sheet lets anybody choose. */
const looks: fc.Arbitrary<Look> = fc.record({
  modules: fc.record({
    shape: fc.constantFrom(...MODULE_SHAPES),
    size: fc.integer({ min: 60, max: 100 }).map((percent) => percent / 100),
  }),
  finder: fc.record({
    ring: mostly('rounded', fc.constantFrom(...PATTERN_SHAPES)),
    centre: mostly('square', fc.constantFrom(...PATTERN_SHAPES)),
    ringTint: mostly(null, colour),
    centreTint: mostly(null, colour),
  }),
  alignment: mostly('modules', fc.constantFrom('modules', ...PATTERN_SHAPES)),
  ink: mostly(PLAIN_LOOK.ink, paint),
  ground: mostly(PLAIN_LOOK.ground, fc.oneof(fc.constant(null), paint)),
  quietZone: fc.integer({ min: 4, max: 8 }),
  logo: mostly(
    null,
    fc.record({
      file: fc.constant(LOGO),
      share: fc.integer({ min: 5, max: 40 }).map((percent) => percent / 100),
      margin: fc.integer({ min: 0, max: 2 }),
      plate: fc.constantFrom('none', 'square', 'round'),
      plateTint: colour,
      cleared: fc.boolean(),
    }),
  ),
  surround: fc.constant(null),
})
/** Texts for versions 1 to 10 (ISO/IEC 18004). */
const texts = fc
  .tuple(fc.integer({ min: 0, max: 150 }), fc.constantFrom('A1$', 'a', 'ä'))
  .map(([length, sign]) => `X${sign.repeat(Math.ceil(length / sign.length))}`)

/** Those that readiness hangs on. */
const DECISIVE = CONDITIONS.filter(({ name }) =>
  ['far', 'tilt', 'turn', 'dim', 'ink-spread', 'ink-loss'].includes(name),
)
/** A phone that looks for half a second takes so many times three pictures. */
const MOMENTS = 5
/** How a phone may be held: the proof itself holds it nearly upright. */
const TURNS = [90, 180, 270, 45]

describe('what is said to be ready', () => {
  it('is read however the phone is held, with other noise than it was measured by', async () => {
    let ready = 0
    await fc.assert(
      fc.asyncProperty(looks, fc.constantFrom(...LEVELS), texts, async (look, level, text) => {
        const symbol = encode(text, level)
        if (symbol.version > 10) return
        const piece = { symbol, look, mm: symbol.side * 1.2, link: '', viewingM: null }
        if ((await proof(piece, PARTS, DECISIVE)).readiness !== 'ready') return
        ready++
        const { subject } = subjectOf(piece, PARTS)
        for (const [i, turnDeg] of TURNS.entries()) {
          const view = { ...GOOD_VIEW, distanceMm: goodDistance(subject), turnDeg }
          let moments = 0
          while (
            moments < MOMENTS &&
            !(await isRead(subject, view, text, PARTS.decoders, 1000 + 10 * i + moments))
          )
            moments++
          expect([turnDeg, moments]).not.toEqual([turnDeg, MOMENTS])
        }
      }),
      { numRuns: 40, seed: 20261126, endOnFailure: true },
    )
    // Without any that are ready nothing would have been tried.
    expect(ready).toBeGreaterThan(5)
  }, 120_000)
})
