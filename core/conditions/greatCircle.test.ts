import fc from 'fast-check'
import { Geodesic } from 'geographiclib-geodesic'
import { describe, expect, it } from 'vitest'
import { circleAround, EARTH_RADIUS_KM, greatCircleKm } from './index.ts'

const point = fc.record({
  latitude: fc.double({ min: -90, max: 90, noNaN: true }),
  longitude: fc.double({ min: -180, max: 180, noNaN: true }),
})

describe('the great circle', () => {
  it('is within 0.6 % of the geodesic on the WGS 84 ellipsoid, as an independent package has it', () => {
    fc.assert(
      fc.property(point, point, (a, b) => {
        const geodesic =
          (Geodesic.WGS84.Inverse(a.latitude, a.longitude, b.latitude, b.longitude).s12 ?? 0) / 1000
        expect(Math.abs(greatCircleKm(a, b) - geodesic)).toBeLessThanOrEqual(0.006 * geodesic + 1e-6)
      }),
      { numRuns: 500 },
    )
  })

  // Quarters of the equator and of a meridian follow from the mean radius (IUGG) alone.
  it.each([
    [
      { latitude: 0, longitude: 0 },
      { latitude: 0, longitude: 90 },
    ],
    [
      { latitude: 0, longitude: 17 },
      { latitude: 90, longitude: -3 },
    ],
  ])('is a quarter of the way round from %j to %j', (a, b) => {
    expect(greatCircleKm(a, b)).toBeCloseTo((EARTH_RADIUS_KM * Math.PI) / 2, 6)
  })

  // City pairs often given for great circles, rounded; from memory, and confirmed above by the independent package.
  it.each([
    ['Paris to London', 48.8566, 2.3522, 51.5074, -0.1278, 344],
    ['New York to Los Angeles', 40.7128, -74.006, 34.0522, -118.2437, 3936],
    ['Berlin to Tokyo', 52.52, 13.405, 35.6762, 139.6503, 8918],
  ])('is as published: %s', (_name, north, east, otherNorth, otherEast, km) => {
    expect(
      Math.abs(
        greatCircleKm({ latitude: north, longitude: east }, { latitude: otherNorth, longitude: otherEast }) -
          km,
      ),
    ).toBeLessThan(4)
  })

  it('does not care for the date line or the order', () => {
    expect(
      greatCircleKm({ latitude: 10, longitude: 179.9 }, { latitude: 10, longitude: -179.9 }),
    ).toBeCloseTo(greatCircleKm({ latitude: 10, longitude: 0 }, { latitude: 10, longitude: 0.2 }), 6)
    fc.assert(
      fc.property(point, point, (a, b) => {
        expect(greatCircleKm(a, b)).toBeCloseTo(greatCircleKm(b, a), 6)
      }),
    )
  })

  it('drawn as a circle, is the same distance all the way round', () => {
    fc.assert(
      fc.property(point, fc.integer({ min: 1, max: 5000 }), (middle, km) => {
        for (const corner of circleAround(middle, km, 12))
          expect(greatCircleKm(middle, corner)).toBeCloseTo(km, 3)
      }),
      { numRuns: 50 },
    )
  })
})
