import type { Condition } from '@flimbo/core/conditions'
import { NO_RULES, type Rules } from '@flimbo/core/routing'

const near = (latitude: number, longitude: number): Condition => ({
  kind: 'near',
  name: '',
  latitude,
  longitude,
  km: 25,
})
const ZONE = 'Europe/Berlin'

/** Ten lanes by place, so chosen that few scans stop early, and ten of other kinds. */
const CONDITIONS: readonly Condition[] = [
  near(48.14, 11.58),
  near(50.94, 6.96),
  near(51.34, 12.37),
  near(48.78, 9.18),
  near(55.68, 12.57),
  near(51.51, -0.13),
  {
    kind: 'city',
    in: [
      { country: 'NL', city: 'Zwolle' },
      { country: 'DK', city: 'Ribe' },
    ],
  },
  { kind: 'region', in: [{ country: 'DE', region: 'Saxony' }] },
  { kind: 'country', in: ['FR', 'ES', 'IT', 'AT', 'CH'] },
  { kind: 'all', of: [near(52.52, 13.4), { kind: 'device', in: ['computer'] }] },
  { kind: 'language', in: ['fr', 'es'] },
  { kind: 'language', in: ['pl', 'cs'] },
  { kind: 'system', is: 'iOS', from: '', upTo: '15' },
  { kind: 'system', is: 'Android', from: '', upTo: '11' },
  { kind: 'hours', days: [1, 2, 3, 4, 5, 6, 7], from: '03:00', upTo: '03:30', zone: ZONE },
  { kind: 'window', from: '2030-01-01T00:00', upTo: '2030-02-01T00:00', zone: ZONE },
  { kind: 'browser', in: ['Opera'] },
  { kind: 'code', field: 'medium', in: ['screen'] },
  { kind: 'query', name: 'ref', in: ['partner'] },
  {
    kind: 'any',
    of: [
      {
        kind: 'all',
        of: [
          { kind: 'device', in: ['tablet'] },
          { kind: 'language', in: ['da'] },
        ],
      },
      {
        kind: 'not',
        of: { kind: 'device', in: ['phone', 'tablet', 'computer', 'television', 'watch', 'other'] },
      },
    ],
  },
]

export const TWENTY_LANES: Rules = {
  ...NO_RULES,
  lanes: CONDITIONS.map((condition, i) => ({
    id: `l${String(i)}`,
    name: '',
    condition,
    outcome: { kind: 'address', address: `https://saltmarsh.example/lane/${String(i)}` },
    resting: false,
  })),
}
