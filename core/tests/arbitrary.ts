import fc from 'fast-check'
import type { Condition, Leaf, Visit } from '../conditions/index.ts'

// Conditions and visits for property tests, from so few values that they often meet.
const country = fc.constantFrom('DE', 'NL', 'DK')
const city = fc.constantFrom('Bremen', 'Groningen')
const list = <T>(value: fc.Arbitrary<T>) => fc.uniqueArray(value, { minLength: 1, maxLength: 3 })
const time = fc
  .tuple(fc.integer({ min: 0, max: 23 }), fc.constantFrom('00', '30'))
  .map(([hour, minute]) => `${String(hour).padStart(2, '0')}:${minute}`)
const version = fc.constantFrom('', '16', '17', '17.5', '18')
const km = fc.constantFrom(5, 60, 500)

export const leaf: fc.Arbitrary<Leaf> = fc.oneof(
  fc.record({ kind: fc.constant('country' as const), in: list(country) }),
  fc.record({ kind: fc.constant('city' as const), in: list(fc.record({ country, city })) }),
  fc.record({
    kind: fc.constant('region' as const),
    in: list(fc.record({ country, region: fc.constantFrom('Bremen', 'Groningen') })),
  }),
  fc.record({
    kind: fc.constant('near' as const),
    name: fc.constant('Pier'),
    latitude: fc.constantFrom(53.07, 53.2),
    longitude: fc.constantFrom(8.8, 6.56),
    km,
  }),
  fc.record({ kind: fc.constant('distance' as const), km, beyond: fc.boolean() }),
  fc.record({
    kind: fc.constant('device' as const),
    in: list(fc.constantFrom('phone' as const, 'tablet' as const, 'computer' as const)),
  }),
  fc.record({
    kind: fc.constant('system' as const),
    is: fc.constantFrom('iOS', 'Android'),
    from: version,
    upTo: version,
  }),
  fc.record({ kind: fc.constant('browser' as const), in: list(fc.constantFrom('Safari', 'Firefox')) }),
  fc.record({ kind: fc.constant('language' as const), in: list(fc.constantFrom('de', 'de-AT', 'nl', 'en')) }),
  fc.record({
    kind: fc.constant('window' as const),
    from: fc.constantFrom('', '2026-03-29T02:30', '2026-07-01T08:00'),
    upTo: fc.constantFrom('', '2026-08-01T00:00'),
    zone: fc.constant('Europe/Berlin'),
  }),
  fc.record({
    kind: fc.constant('hours' as const),
    days: list(fc.integer({ min: 1, max: 7 })),
    from: time,
    upTo: time,
    zone: fc.constantFrom('Europe/Berlin', 'Asia/Kathmandu'),
  }),
  fc.record({
    kind: fc.constant('visit' as const),
    is: fc.constantFrom('first' as const, 'repeat' as const),
  }),
  fc.record({
    kind: fc.constant('code' as const),
    field: fc.constant('medium' as const),
    in: list(fc.constantFrom('print', 'screen')),
  }),
  fc.record({
    kind: fc.constant('query' as const),
    name: fc.constant('ref'),
    in: fc.constantFrom<string[]>([], ['a']),
  }),
)

export const { condition } = fc.letrec<{ condition: Condition }>((tie) => ({
  condition: fc.oneof(
    { maxDepth: 3, withCrossShrink: true },
    leaf,
    fc.record({ kind: fc.constant('all' as const), of: fc.array(tie('condition'), { maxLength: 3 }) }),
    fc.record({ kind: fc.constant('any' as const), of: fc.array(tie('condition'), { maxLength: 3 }) }),
    fc.record({ kind: fc.constant('not' as const), of: tie('condition') }),
  ),
}))

const degrees = fc.constantFrom([53.07, 8.8], [53.22, 6.57], [55.68, 12.57], null)
const placed = (point: readonly number[] | null) => ({
  latitude: point?.[0] ?? null,
  longitude: point?.[1] ?? null,
})

export const visit: fc.Arbitrary<Visit> = fc.record({
  at: fc.integer({ min: Date.parse('2026-03-28'), max: Date.parse('2026-11-01') }),
  query: fc.constantFrom('', 'ref=a', 'ref=b&x=1'),
  place: fc
    .tuple(fc.constantFrom('DE', 'NL', 'DK', ''), fc.constantFrom('Bremen', 'Groningen', ''), degrees)
    .map(([of, city, point]) => ({ country: of, region: city, city, ...placed(point) })),
  device: fc.record({
    type: fc.constantFrom('phone' as const, 'tablet' as const, 'computer' as const),
    system: fc.constantFrom('iOS', 'Android', ''),
    systemVersion: fc.constantFrom('', '16.2', '17.5.1', '18'),
    browser: fc.constantFrom('Safari', 'Firefox', ''),
  }),
  languages: fc.constantFrom([], ['de-AT', 'en'], ['nl'], ['en-GB', 'de'], ['fr']),
  visitor: fc.stringMatching(/^[0-9a-f]{16}$/),
  repeat: fc.boolean(),
  precise: fc.constantFrom(null, 'refused' as const, { latitude: 53.2, longitude: 6.56 }),
})
