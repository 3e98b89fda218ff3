import { describe, expect, it } from 'vitest'
import { CONDITION_NAMES } from './conditions.ts'
import {
  correctionSentence,
  costSentence,
  distanceWords,
  limitsSentence,
  limitWords,
  reasonSentence,
} from './words.ts'

describe('what was measured', () => {
  it('is said in one sentence', () => {
    const limit = (name: 'near' | 'far' | 'tilt' | 'dim', value: number | null) => ({
      name,
      value,
      isEnd: false,
    })
    expect(
      limitsSentence([limit('near', 61), limit('far', 1426), limit('tilt', 52.4), limit('dim', 0.3)]),
    ).toBe('Reads from 6 cm to 1.4 m, up to 52° tilt, down to 30 % light.')
    expect(limitsSentence([limit('near', 61), limit('far', 530)])).toBe('Reads from 6 cm to 53 cm.')
    expect(limitsSentence([limit('near', null), limit('far', 530)])).toBe(
      'It is not read even in good conditions.',
    )
    expect([distanceWords(64), distanceWords(2000), distanceWords(12_400)]).toEqual(['6 cm', '2 m', '12 m'])
  })

  it('of error correction counts codewords', () => {
    expect(correctionSentence({ blocks: [{ lost: 0, correctable: 13 }] })).toMatch(
      /^All of the error correction/,
    )
    expect(
      correctionSentence({
        blocks: [
          { lost: 11, correctable: 28 },
          { lost: 2, correctable: 28 },
        ],
      }),
    ).toBe('Block 1 of 2 uses up 11 of the 28 codewords it can lose.')
  })

  it('of a choice says what it costs', () => {
    const cost = (grades: number, metres: number, tiltDeg: number) =>
      costSentence({ choice: 'logo', grades, metres, tiltDeg })
    expect(cost(0, 0.4, 15)).toBe('The logo costs 40 cm and 15°.')
    expect(cost(2, 1.4, 15)).toBe('The logo costs 2 grades, 1.4 m and 15°.')
    expect(cost(1, 0, 0)).toBe('The logo costs one grade.')
    expect(cost(0, 0.001, 0)).toBe('The logo costs next to nothing.')
  })

  it('of a piece that is not ready says why', () => {
    expect(reasonSentence({ code: 'too-far', readsM: 0.53, viewingM: 5 })).toBe(
      'It reads from up to 53 cm, and people will stand 5 m away. Print it larger.',
    )
    expect(reasonSentence({ code: 'no-correction', block: 1, lost: 20, correctable: 13 })).toBe(
      'Block 1 loses 20 codewords, and 13 are the most it can lose.',
    )
    expect(reasonSentence({ code: 'low-grade', grade: 'D', measure: 'contrast' })).toBe(
      'Grade D for the contrast of ink and ground.',
    )
    expect(reasonSentence({ code: 'touchy', condition: 'dim', value: 0.42 })).toMatch(
      /42 % of a lit room’s light/,
    )
    expect(reasonSentence({ code: 'narrow-modules', moduleMm: 0.364 })).toMatch(/^A module is 0\.36 mm wide/)
    expect(reasonSentence({ code: 'unread' })).toMatch(/not read/)
  })
})

describe('a limit', () => {
  it.each([
    ['tilt', 66.6, false, 'Tilted by', '67°'],
    ['turn', 45, true, 'Turned by', '45°'],
    ['near', 61, true, 'As near as', '6 cm'],
    ['far', 1426, false, 'As far as', '1.4 m'],
    ['ink-spread', 0.25, true, 'Ink that runs by', '0.3 of a module or more'],
    ['dim', 0.051, false, 'In light of', '5.1 %'],
    ['torn', null, false, 'A corner torn by', 'not read'],
  ] as const)('of %s at %s, the end: %s, is said: %s %s', (name, value, isEnd, called, said) => {
    expect(limitWords({ name, value, isEnd })).toEqual({ name: called, value: said })
  })

  it('of every condition has its words', () => {
    for (const name of CONDITION_NAMES)
      expect(limitWords({ name, value: 1, isEnd: false }).value).not.toBe('')
  })
})
