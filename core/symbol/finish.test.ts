import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEFAULT_FINISH, drawnMm, finished, finishedLook } from './finish.ts'
import { freeLevel, printedSymbol } from './freeLevel.ts'
import { LEVELS } from './capacity.ts'
import { encode } from './encode.ts'
import { PLAIN_LOOK } from './look.ts'
import { changedSince, releaseSentence } from './released.ts'
import type { Scene } from './scene.ts'

const SCENE: Scene = { title: '', unitMm: 2, width: 10, height: 5, marks: [] }

describe('a finished scene', () => {
  it('is the scene itself without bleed and marks', () => {
    expect(finished(SCENE, PLAIN_LOOK, DEFAULT_FINISH).scene).toBe(SCENE)
  })

  it('is larger by its bleed, and by its marks beyond that, on every side', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 20, noNaN: true }),
        fc.constantFrom('yes' as const, 'no' as const),
        (bleedMm, cutMarks) => {
          const { scene, trimMm } = finished(SCENE, PLAIN_LOOK, { bleedMm, cutMarks })
          // Marks are 5 mm long and begin 3 mm off the cut, or where the bleed ends.
          expect(trimMm).toBeCloseTo(cutMarks === 'yes' ? Math.max(bleedMm, 3) + 5 : bleedMm, 9)
          expect(scene.width * scene.unitMm).toBeCloseTo(20 + 2 * trimMm, 9)
          expect(scene.height * scene.unitMm).toBeCloseTo(10 + 2 * trimMm, 9)
        },
      ),
    )
  })

  it('has no bleed of a ground that is none', () => {
    expect(finished(SCENE, { ground: null }, { bleedMm: 3, cutMarks: 'no' }).scene.marks).toEqual([])
    expect(finished(SCENE, PLAIN_LOOK, { bleedMm: 3, cutMarks: 'no' }).scene.marks).toHaveLength(1)
  })

  it('leaves out what a file is to be without', () => {
    const surround = {
      line: 1,
      corner: 0,
      padding: 0,
      tint: { rgb: '#000000', cmyk: null },
      textTint: { rgb: '#000000', cmyk: null },
      caption: '',
      captionAt: 'above' as const,
      link: false,
    }
    const look = { ...PLAIN_LOOK, surround }
    expect(finishedLook(look, { surround: 'without', ground: 'transparent' })).toEqual({
      ...look,
      surround: null,
      ground: null,
    })
    expect(finishedLook(look, { surround: 'with', ground: 'filled' })).toEqual(look)
  })

  it('has its modules as wide as is wanted where those are measured', () => {
    const symbol = { side: 25 }
    expect(drawnMm(symbol, { quietZone: 4 }, 25, { measure: 'modules' })).toBeCloseTo(33, 9)
    expect(drawnMm(symbol, { quietZone: 4 }, 25, { measure: 'quiet-zone' })).toBe(25)
  })
})

describe('the level that costs nothing', () => {
  it('is the highest whose symbol is no larger, whatever the text', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 120 }), fc.constantFrom(...LEVELS), (text, level) => {
        const free = freeLevel(text, level)
        const { version } = encode(text, level)
        expect(printedSymbol(text, level).version).toBe(version)
        const higher = LEVELS[LEVELS.indexOf(free) + 1]
        if (higher) expect(encode(text, higher).version).toBeGreaterThan(version)
      }),
      { numRuns: 60 },
    )
  })
})

describe('what changed since a release', () => {
  const printed = { text: 'A', level: 'M' as const, sizeMm: 30, look: PLAIN_LOOK, placement: null }
  it.each([
    [{}, ''],
    [{ sizeMm: 40 }, 'Since release 2 the size changed.'],
    [
      { text: 'B', look: { ...PLAIN_LOOK, quietZone: 5 } },
      'Since release 2 the short link and the look changed.',
    ],
    [
      { text: 'B', sizeMm: 1, level: 'H' as const },
      'the short link, the size and the error correction changed.',
    ],
  ])('of %j is said: %s', (more, words) => {
    const changed = changedSince(printed, { ...printed, ...more })
    expect(releaseSentence({ number: 2, changed })).toContain(words)
    expect(changed.length).toBe(Object.keys(more).length)
  })
})
