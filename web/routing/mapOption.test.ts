import { circleAround, mercator } from '@flimbo/core/conditions'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { isNear, pointUnder, viewOf } from './mapOption.ts'

// Wide enough that no view reaches beyond the ends of the map, where there is nothing left to fit.
const shapes = fc.double({ min: 1.6, max: 5, noNaN: true })
const circles = fc.array(
  fc.record({
    latitude: fc.double({ min: -60, max: 60, noNaN: true }),
    longitude: fc.double({ min: -80, max: 80, noNaN: true }),
    km: fc.integer({ min: 1, max: 500 }),
    kind: fc.constant('near' as const),
    place: fc.constant(1),
    name: fc.constant('Lark Holm'),
  }),
  { minLength: 1, maxLength: 4 },
)

describe('the view of a map', () => {
  test('has the shape of its box, so that a circle is drawn round', () => {
    fc.assert(
      fc.property(circles, shapes, (drawn, shape) => {
        const [[left, top], [right, bottom]] = cornersOf(viewOf(drawn, null, shape))
        expect((right - left) / (bottom - top)).toBeCloseTo(shape, 6)
      }),
    )
  })

  test('holds every circle whole', () => {
    fc.assert(
      fc.property(circles, shapes, (drawn, shape) => {
        const [[left, top], [right, bottom]] = cornersOf(viewOf(drawn, null, shape))
        for (const { km, ...centre } of drawn)
          for (const { longitude, latitude } of circleAround(centre, km, 12)) {
            const [x, y] = mercator([longitude, latitude])
            expect(x > left && x < right && y > top && y < bottom).toBe(true)
          }
      }),
    )
  })

  test('shows the world, with coarse coasts, where nothing is drawn; a coast to know it by about a lone point', () => {
    expect(isNear(viewOf([], null, 2))).toBe(false)
    const near = viewOf([], { latitude: 53.9, longitude: 8.7 }, 2)
    expect(isNear(near)).toBe(true)
    expect(near[1][0] - near[0][0]).toBeGreaterThan(3)
  })
})

describe('the point under a pixel', () => {
  const drawn = (scale: number, left: number, top: number) => {
    return (degrees: readonly [number, number]) => {
      const [x, y] = mercator(degrees)
      return [left + x * scale, top + y * scale]
    }
  }

  test('is the one that is drawn there, however the map is shifted and scaled', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -84, max: 84, noNaN: true }),
        fc.double({ min: -179, max: 179, noNaN: true }),
        fc.integer({ min: 100, max: 50_000 }),
        fc.integer({ min: -5000, max: 5000 }),
        (latitude, longitude, scale, shift) => {
          const toPixel = drawn(scale, shift, -shift)
          const [x = NaN, y = NaN] = toPixel([longitude, latitude])
          const point = pointUnder([x, y], toPixel)
          expect(point?.latitude).toBeCloseTo(latitude, 2)
          expect(point?.longitude).toBeCloseTo(longitude, 2)
        },
      ),
    )
  })

  test('comes round beyond the date line, and is none beyond the poles or before anything is drawn', () => {
    expect(pointUnder([(190 * Math.PI) / 1.8, 0], drawn(100, 0, 0))).toEqual({ latitude: 0, longitude: -170 })
    expect(pointUnder([0, 500], drawn(100, 0, 0))).toBeNull()
    expect(pointUnder([0, 0], () => [])).toBeNull()
  })
})

function cornersOf([first, second]: ReturnType<typeof viewOf>) {
  return [mercator(first), mercator(second)] as const
}
