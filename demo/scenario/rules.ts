import { EVERY_SCAN, type Condition } from '@flimbo/core/conditions'
import { NO_RULES, openLife, type Expectation, type Lane, type Rules } from '@flimbo/core/routing'
import { OFFICE_PAGE, PASS_PAGE, SEALS_PAGE, SURVEY_PAGE, TIDES_PAGE } from './pages.ts'

const SITE = 'https://saltmarsh.example'
const ZONE = 'Europe/Berlin'
const EVERY_DAY = [1, 2, 3, 4, 5, 6, 7]

const address = (path: string) => ({ kind: 'address', address: `${SITE}${path}` }) as const
const lane = (
  id: string,
  name: string,
  condition: Condition,
  outcome: Lane['outcome'],
  resting = false,
): Lane => ({ id, name, condition, outcome, resting })

/** The lanes of the sample's routes, and when they were published; days of the scenario's calendar. */
export interface SampleRules {
  readonly since: string
  readonly by: 'anna' | 'jonas'
  readonly rules: Rules
}

const evening = lane(
  'evening',
  'Evenings near the pier',
  {
    kind: 'all',
    of: [
      { kind: 'device', in: ['phone'] },
      { kind: 'near', name: 'Wilhelmshaven', latitude: 53.5302, longitude: 8.1125, km: 60 },
      { kind: 'hours', days: EVERY_DAY, from: '17:00', upTo: '23:00', zone: ZONE },
    ],
  },
  address('/timetable/evening'),
)
const dutch = lane('dutch', '', { kind: 'language', in: ['nl'] }, address('/dienstregeling?code={code}'))
const danish = lane(
  'danish',
  '',
  {
    kind: 'any',
    of: [
      { kind: 'language', in: ['da'] },
      { kind: 'country', in: ['DK'] },
    ],
  },
  {
    kind: 'split',
    variants: [
      { id: 'table', name: 'Table', weight: 60, ended: false, leads: address('/sejlplan') },
      { id: 'map', name: 'Map', weight: 40, ended: false, leads: address('/sejlplan/kort') },
    ],
  },
)
const storm = lane(
  'storm',
  'Storm warning',
  EVERY_SCAN,
  {
    kind: 'message',
    title: 'No boats today',
    text: 'The wind is too strong for our boats. Tickets stay good for a year.',
  },
  true,
)

/** Lanes that several routes share; the sample has one set, which is the first there is. */
export const SHARED_SETS: readonly { readonly name: string; readonly lanes: Lane[] }[] = [
  { name: 'Weather', lanes: [storm] },
]
const FIRST_SET = { setId: 1, place: 'first' } as const

export const RULES: Readonly<Record<string, readonly SampleRules[]>> = {
  'Timetable page': [
    { since: '2026-04-20', by: 'jonas', rules: { ...NO_RULES, language: 'de', lanes: [dutch, danish] } },
    {
      since: '2026-05-18',
      by: 'anna',
      rules: {
        ...NO_RULES,
        language: 'de',
        shared: FIRST_SET,
        lanes: [evening, dutch, danish],
        tags: ['site'],
      },
    },
  ],
  'Tide tables': [
    {
      since: '2026-05-18',
      by: 'anna',
      rules: {
        ...NO_RULES,
        language: 'de',
        shared: FIRST_SET,
        lanes: [
          lane('english', '', { kind: 'language', in: ['en'] }, { kind: 'page', pageId: TIDES_PAGE }),
          lane(
            'stop',
            'German leaflet: the seal stop',
            { kind: 'code', field: 'content', in: ['german'] },
            { kind: 'page', pageId: SEALS_PAGE },
          ),
        ],
      },
    },
  ],
  'Guest survey': [
    {
      since: '2026-05-19',
      by: 'anna',
      rules: {
        ...NO_RULES,
        language: 'en',
        lanes: [lane('survey', 'The survey', EVERY_SCAN, { kind: 'page', pageId: SURVEY_PAGE })],
      },
    },
  ],
  'Harbour office': [
    {
      since: '2026-05-19',
      by: 'anna',
      rules: {
        ...NO_RULES,
        language: 'en',
        lanes: [lane('card', 'The office’s card', EVERY_SCAN, { kind: 'page', pageId: OFFICE_PAGE })],
      },
    },
  ],
  'Seal trips': [
    {
      since: '2026-06-23',
      by: 'anna',
      rules: {
        ...NO_RULES,
        language: 'en',
        tags: ['seals'],
        life: { ...openLife(ZONE), endsAt: '2026-09-15T20:00', after: address('/seals/next-year') },
        lanes: [
          lane(
            'apps',
            'Computers and tablets',
            { kind: 'device', in: ['computer', 'tablet', 'television'] },
            address('/seals/large'),
          ),
          lane('test', 'Booking page test', EVERY_SCAN, {
            kind: 'split',
            variants: [
              { id: 'short', name: 'Short form', weight: 50, ended: false, leads: address('/seals/book') },
              {
                id: 'photos',
                name: 'With photographs',
                weight: 50,
                ended: false,
                leads: address('/seals/book/photos'),
              },
            ],
          }),
        ],
      },
    },
  ],
  'Pass form': [
    {
      since: '2026-09-15',
      by: 'anna',
      rules: {
        ...NO_RULES,
        life: {
          ...openLife(ZONE),
          endsAt: '2026-12-31T23:59',
          limit: 2500,
          full: address('/pass/waiting-list'),
          after: address('/pass/next'),
        },
        lanes: [lane('form', 'The form', EVERY_SCAN, { kind: 'page', pageId: PASS_PAGE })],
        tags: ['pass'],
      },
    },
  ],
}

const place = (country: string, region: string, city: string, latitude: number, longitude: number) => ({
  country,
  region,
  city,
  latitude,
  longitude,
})
const phone = { type: 'phone', system: 'iOS', systemVersion: '18.5', browser: 'Safari' } as const

/** Rehearsals somebody kept: publishing runs them again. */
export const EXPECTATIONS: Readonly<Record<string, Expectation[]>> = {
  'Timetable page': [
    {
      id: 'groningen',
      name: 'A Dutch phone in Groningen at noon gets the Dutch timetable',
      leads: `${SITE}/dienstregeling`,
      rehearsal: {
        place: place('NL', 'Groningen', 'Groningen', 53.2192, 6.5667),
        device: phone,
        languages: ['nl-NL', 'nl'],
        at: '2026-07-15T12:00',
        zone: ZONE,
        repeat: false,
        query: '',
      },
    },
    {
      id: 'bremen',
      name: 'A German phone in Bremen at night gets the timetable',
      leads: `${SITE}/timetable`,
      rehearsal: {
        place: place('DE', 'Bremen', 'Bremen', 53.0793, 8.8017),
        device: phone,
        languages: ['de-DE', 'de'],
        at: '2026-07-15T02:00',
        zone: ZONE,
        repeat: false,
        query: '',
      },
    },
  ],
}
