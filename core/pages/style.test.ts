import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { contrastRatio } from '../symbol/index.ts'
import { contrastOn, pageStyle, PLAIN_STYLE, styleFaults, type PageStyle } from './index.ts'
import { inkOn } from './style.ts'

const hex = fc
  .integer({ min: 0, max: 0xffffff })
  .map((n) => `#${n.toString(16).padStart(6, '0').toUpperCase()}`)
const light = (change: Partial<PageStyle['light']>): PageStyle => ({
  ...PLAIN_STYLE,
  scheme: 'light',
  light: { ...PLAIN_STYLE.light, ...change },
})

describe('a page style', () => {
  it('that nobody chose can be read, by day and in the dark', () => {
    expect(styleFaults(PLAIN_STYLE)).toEqual([])
    expect(pageStyle.parse(PLAIN_STYLE)).toEqual(PLAIN_STYLE)
  })

  // WCAG 2.2, relative luminance: #767676 on white is 4.54:1, #777777 is 4.48:1.
  it.each([
    ['#767676', 0],
    ['#777777', 1],
  ])('of %s on white has %i faults', (ink, faults) => {
    const given = light({ ground: { kind: 'solid', colour: '#FFFFFF' }, ink, accent: '#000000' })
    expect(styleFaults(given)).toHaveLength(faults)
  })

  it('is measured where its gradient is worst', () => {
    const ground = { kind: 'gradient', from: '#FFFFFF', upTo: '#000000', angle: 90 } as const
    const faults = styleFaults(light({ ground, ink: '#777777' }))
    expect(faults.map(({ path }) => path)).toEqual(['light.ink', 'light.accent'])
    expect(faults[0]?.sentence).toContain('a contrast of 1.0 : 1')
    fc.assert(
      fc.property(hex, hex, hex, (from, upTo, ink) => {
        const worst = contrastOn({ kind: 'gradient', from, upTo, angle: 0 }, ink)
        expect(worst).toBeLessThanOrEqual(contrastRatio(from, ink))
        expect(worst).toBeLessThanOrEqual(contrastRatio(upTo, ink))
      }),
    )
  })

  it('is measured on the sheet where its ground is a picture, which must be there', () => {
    const ground = { kind: 'picture', file: '', sheet: '#FFFFFF' } as const
    expect(styleFaults(light({ ground })).map(({ path }) => path)).toEqual(['light.ground.file'])
  })

  it('does not look at colours that are not used', () => {
    const dark = { ...PLAIN_STYLE.dark, ink: '#14191C' }
    expect(styleFaults({ ...PLAIN_STYLE, dark, scheme: 'light' })).toEqual([])
    expect(styleFaults({ ...PLAIN_STYLE, dark })).toHaveLength(1)
  })

  it('writes on buttons of any colour so that it can be read', () => {
    fc.assert(
      fc.property(hex, (accent) => {
        expect(contrastRatio(accent, inkOn(accent))).toBeGreaterThanOrEqual(4.5)
      }),
    )
  })
})
