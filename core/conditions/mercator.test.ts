import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { circleAround, fromMercator, mercator, MERCATOR_END } from './index.ts'

describe('the projection of maps', () => {
  // Snyder, USGS Professional Paper 1395, numerical example of Mercator on the sphere, from memory:
  // 35° N 75° W about 180° W with R = 1 gives x = 1.8325957, y = 0.6528366.
  it('places the worked example of the manual', () => {
    const [x, y] = mercator([-75 + 180, 35])
    expect(x).toBeCloseTo(1.8325957, 7)
    expect(-y).toBeCloseTo(0.6528366, 7)
  })

  it('comes back to where it started', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -540, max: 540, noNaN: true }),
        fc.double({ min: -MERCATOR_END, max: MERCATOR_END, noNaN: true }),
        (longitude, latitude) => {
          const [east, north] = fromMercator(mercator([longitude, latitude]))
          expect(east).toBeCloseTo(longitude, 9)
          expect(north).toBeCloseTo(latitude, 9)
        },
      ),
    )
  })

  it('draws a circle on the ground as a circle, wherever it is, and never leaves the map', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -70, max: 70, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        fc.double({ min: 1, max: 100, noNaN: true }),
        (latitude, longitude, km) => {
          const points = circleAround({ latitude, longitude }, km).map((point) =>
            mercator([point.longitude, point.latitude]),
          )
          const wide = Math.max(...points.map(([x]) => x)) - Math.min(...points.map(([x]) => x))
          const high = Math.max(...points.map(([, y]) => y)) - Math.min(...points.map(([, y]) => y))
          expect(wide / high).toBeGreaterThan(0.99)
          expect(wide / high).toBeLessThan(1.01)
        },
      ),
    )
    expect(mercator([0, 90])[1]).toBeCloseTo(-Math.PI, 4)
    expect(mercator([0, -90])[1]).toBeCloseTo(Math.PI, 4)
  })
})
