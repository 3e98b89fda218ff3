import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FOCAL_PX, GOOD_VIEW, photograph, type Subject, type View } from './camera.ts'
import { blurred, shrunk, withInkSpread, type Light } from './light.ts'
import { seededNoise, seededNumbers } from './seeded.ts'

/** White with a black square in its middle. */
function square(side: number, black: number): Light {
  const from = (side - black) / 2
  const inside = (at: number) => at >= from && at < from + black
  const values = Float32Array.from({ length: side * side }, (_, i) =>
    inside(i % side) && inside(Math.floor(i / side)) ? 0 : 1,
  )
  return { width: side, height: side, values }
}
const sumOf = ({ values }: Light) => values.reduce((sum, value) => sum + value, 0)

/** A black square of 20 mm on white of 40 mm. */
const SUBJECT: Subject = { artwork: square(400, 200), widthMm: 40, moduleMm: 2, around: 1 }
const view = (more: Partial<View>): View => ({ ...GOOD_VIEW, distanceMm: 300, ...more })

/** How many pixels wide and high the black of a picture is, along the lines through its middle. */
function extent(seen: View) {
  const picture = photograph(SUBJECT, seen, 1)
  if (!picture) return null
  const { width, height, gray } = picture
  const dark = (x: number, y: number) => (gray[y * width + x] ?? 255) < 128
  const middle = [Math.floor(width / 2), Math.floor(height / 2)] as const
  return {
    across: Array.from({ length: width }, (_, x) => dark(x, middle[1])).filter(Boolean).length,
    down: Array.from({ length: height }, (_, y) => dark(middle[0], y)).filter(Boolean).length,
  }
}

describe('a photograph', () => {
  it('shows things as large as the distance makes them', () => {
    for (const distanceMm of [250, 300, 450]) {
      const size = extent(view({ distanceMm }))
      const wanted = (20 * FOCAL_PX) / distanceMm
      expect(Math.abs((size?.across ?? 0) - wanted)).toBeLessThan(2)
      expect(Math.abs((size?.down ?? 0) - wanted)).toBeLessThan(2)
    }
  })

  it('shows what is tilted narrower by the cosine, in the direction it is tilted', () => {
    const straight = extent(view({}))
    const aside = extent(view({ tiltDeg: 60 }))
    const back = extent(view({ tiltDeg: 60, tiltAt: 90 }))
    expect((aside?.across ?? 0) / (straight?.across ?? 1)).toBeCloseTo(0.5, 1)
    expect((aside?.down ?? 0) / (straight?.down ?? 1)).toBeCloseTo(1, 1)
    expect((back?.down ?? 0) / (straight?.down ?? 1)).toBeCloseTo(0.5, 1)
  })

  it('of what is bent round a pole shows less of it', () => {
    // A quarter of the way round on each side is as far as 20 mm reach on a pole of 12.7 mm.
    const bent = extent(view({ bendMm: 10 / (Math.PI / 2) + 0.01 }))
    const straight = extent(view({}))
    expect((bent?.across ?? 0) / (straight?.across ?? 1)).toBeCloseTo(2 / Math.PI, 1)
    expect(bent?.down).toBe(straight?.down)
  })

  it('has more noise the less light there is, and the same for the same seed', () => {
    const roughness = (light: number) => {
      const picture = photograph(SUBJECT, view({ light }), 7)
      const { width, gray } = picture ?? { width: 1, gray: new Uint8ClampedArray(1) }
      const line = [...gray.slice(width * 3, width * 4)]
      const mean = line.reduce((sum, value) => sum + value, 0) / line.length
      return Math.sqrt(line.reduce((sum, value) => sum + (value - mean) ** 2, 0) / line.length)
    }
    expect(roughness(0.05)).toBeGreaterThan(3 * roughness(1))
    expect(photograph(SUBJECT, view({ light: 0.1 }), 3)).toEqual(photograph(SUBJECT, view({ light: 0.1 }), 3))
    expect(photograph(SUBJECT, view({ light: 0.1 }), 3)).not.toEqual(
      photograph(SUBJECT, view({ light: 0.1 }), 4),
    )
  })

  it('is none where it does not fit into the frame', () => {
    expect(photograph(SUBJECT, view({ distanceMm: 40 }), 1)).toBeNull()
  })
})

describe('light', () => {
  it('is moved by blurring and not lost, by a narrow bell and by a wide one', () => {
    const spot = square(101, 3)
    const dark = (light: Light) => 101 * 101 - sumOf(light)
    for (const sigma of [0.3, 1, 1.4, 1.6, 4, 9]) expect(dark(blurred(spot, sigma, sigma))).toBeCloseTo(9, 1)
    // Its deviation is what was asked for, in each direction by its own.
    const { values } = blurred(square(101, 1), 1.2, 5)
    let [acrossSum, downSum] = [0, 0]
    values.forEach((value, i) => {
      acrossSum += (1 - value) * ((i % 101) - 50) ** 2
      downSum += (1 - value) * (Math.floor(i / 101) - 50) ** 2
    })
    expect(Math.sqrt(acrossSum)).toBeCloseTo(1.2, 0)
    expect(Math.sqrt(downSum)).toBeCloseTo(5, 0)
  })

  it('is taken by ink that runs, and given back by ink that fails', () => {
    const width = (light: Light) => {
      const row = light.values.slice(50 * 101, 51 * 101)
      return row.filter((value) => value < 0.5).length
    }
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), (pixels) => {
        expect(width(withInkSpread(square(101, 31), pixels))).toBe(31 + 2 * pixels)
        expect(width(withInkSpread(square(101, 31), -pixels))).toBe(31 - 2 * pixels)
      }),
      { numRuns: 9 },
    )
  })

  it('is the same on the whole when it is made smaller', () => {
    const small = shrunk(square(256, 64), 4.2)
    expect([small.width, small.height]).toEqual([64, 64])
    expect(sumOf(small) / 64 ** 2).toBeCloseTo(sumOf(square(256, 64)) / 256 ** 2, 6)
  })
})

describe('chance', () => {
  it('is even, and noise has a deviation of one', () => {
    const next = seededNumbers(5)
    const numbers = Array.from({ length: 20_000 }, next)
    expect(Math.min(...numbers)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...numbers)).toBeLessThan(1)
    expect(numbers.reduce((sum, value) => sum + value, 0) / numbers.length).toBeCloseTo(0.5, 1)
    const noise = Array.from({ length: 20_000 }, seededNoise(6))
    expect(noise.reduce((sum, value) => sum + value, 0) / noise.length).toBeCloseTo(0, 1)
    expect(Math.sqrt(noise.reduce((sum, value) => sum + value ** 2, 0) / noise.length)).toBeCloseTo(1, 1)
  })
})
