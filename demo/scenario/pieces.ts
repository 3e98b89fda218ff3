import type { Level } from '@flimbo/core/symbol'

/** One printed piece of the sample company, and how busy the place is where it hangs. */
export interface SamplePiece {
  readonly name: string
  readonly slug: string
  readonly medium: string
  readonly source: string
  readonly content?: string
  readonly place: string
  readonly sizeMm: number
  readonly level?: Level
  /** Scans in a usual summer week, about. */
  readonly weekly: number
  readonly state?: 'paused' | 'archived'
}

/** A route, where it led from when on (days of the scenario's calendar), and its pieces. */
export interface SampleRoute {
  readonly name: string
  readonly leads: readonly { readonly since: string; readonly to: string; readonly by: 'anna' | 'jonas' }[]
  readonly pieces: readonly SamplePiece[]
  readonly state?: 'paused'
}

/** When people are about: `summer` follows the season, `winter` the cold months, `weekend` one festival. */
export type Season = 'summer' | 'winter' | 'year' | 'festival'

export interface SampleCampaign {
  readonly name: string
  readonly utmCampaign: string
  readonly startsOn: string
  readonly endsOn: string
  readonly season: Season
  /** The day of its own calendar that is today, whenever the sample is filled: some are in season, some over. */
  readonly today: string
  /** Host its new short links are on; the front door's own where it is left out. */
  readonly host?: string
  readonly routes: readonly SampleRoute[]
}

const SITE = 'https://saltmarsh.example'

export const CAMPAIGNS: readonly SampleCampaign[] = [
  {
    name: 'Summer timetable',
    utmCampaign: 'summer-26',
    startsOn: '2026-03-28',
    endsOn: '2026-10-31',
    season: 'summer',
    today: '2026-07-20',
    routes: [
      {
        name: 'Timetable page',
        leads: [
          { since: '2026-03-20', to: `${SITE}/timetable/soon`, by: 'anna' },
          { since: '2026-03-28', to: `${SITE}/timetable?season=summer`, by: 'anna' },
          { since: '2026-07-09', to: `${SITE}/timetable?season=summer&extra=evening#today`, by: 'jonas' },
          { since: '2026-11-01', to: `${SITE}/winter`, by: 'anna' },
        ],
        pieces: [
          {
            name: 'Pier poster, west gate',
            slug: 'PIERWEST',
            medium: 'print',
            source: 'pier-poster',
            content: 'west-gate',
            place: 'Ferry pier, west gate',
            sizeMm: 60,
            weekly: 210,
          },
          {
            name: 'Pier poster, ticket hall',
            slug: 'PIERHALL',
            medium: 'print',
            source: 'pier-poster',
            content: 'ticket-hall',
            place: 'Ferry pier, ticket hall',
            sizeMm: 60,
            weekly: 340,
          },
          {
            name: 'Landing sign, Lark Holm',
            slug: 'LARKHOLM',
            medium: 'print',
            source: 'landing-sign',
            content: 'lark-holm',
            place: 'Lark Holm landing',
            sizeMm: 90,
            level: 'Q',
            weekly: 190,
          },
          {
            name: 'Landing sign, Tern Sands',
            slug: 'TERNSANDS',
            medium: 'print',
            source: 'landing-sign',
            content: 'tern-sands',
            place: 'Tern Sands landing',
            sizeMm: 90,
            level: 'Q',
            weekly: 160,
          },
          {
            name: 'Landing sign, Grey Skerry',
            slug: 'SKERRY',
            medium: 'print',
            source: 'landing-sign',
            content: 'grey-skerry',
            place: 'Grey Skerry landing',
            sizeMm: 90,
            level: 'Q',
            weekly: 70,
          },
          {
            name: 'Bus back, line 2',
            slug: 'BUS-2',
            medium: 'print',
            source: 'bus-back',
            content: 'line-2',
            place: 'Town buses, line 2',
            sizeMm: 240,
            level: 'H',
            weekly: 55,
          },
          {
            name: 'Bus back, line 7',
            slug: 'BUS-7',
            medium: 'print',
            source: 'bus-back',
            content: 'line-7',
            place: 'Town buses, line 7',
            sizeMm: 240,
            level: 'H',
            weekly: 38,
          },
          {
            name: 'Ticket wallet, day trip',
            slug: 'WALLET',
            medium: 'print',
            source: 'ticket-wallet',
            content: 'day-trip',
            place: 'Handed out on board',
            sizeMm: 22,
            weekly: 260,
          },
        ],
      },
      {
        name: 'Tide tables',
        leads: [
          { since: '2026-03-20', to: `${SITE}/tides`, by: 'jonas' },
          { since: '2026-08-17', to: `${SITE}/tides?lang=auto`, by: 'jonas' },
        ],
        pieces: [
          {
            name: 'Tide-table leaflet, German',
            slug: 'TIDE-DE',
            medium: 'print',
            source: 'tide-leaflet',
            content: 'german',
            place: 'Kiosks and camp sites',
            sizeMm: 25,
            weekly: 170,
          },
          {
            name: 'Tide-table leaflet, English',
            slug: 'TIDE-EN',
            medium: 'print',
            source: 'tide-leaflet',
            content: 'english',
            place: 'Kiosks and camp sites',
            sizeMm: 25,
            weekly: 60,
          },
          {
            name: 'Tide-table leaflet, Dutch',
            slug: 'TIDE-NL',
            medium: 'print',
            source: 'tide-leaflet',
            content: 'dutch',
            place: 'Kiosks and camp sites',
            sizeMm: 25,
            weekly: 75,
          },
        ],
      },
      {
        name: 'Guest survey',
        leads: [{ since: '2026-05-18', to: `${SITE}/survey`, by: 'anna' }],
        pieces: [
          {
            name: 'Table card, on board',
            slug: 'SURVEY',
            medium: 'print',
            source: 'table-card',
            place: 'On board',
            sizeMm: 25,
            weekly: 34,
          },
        ],
      },
      {
        name: 'Harbour office',
        leads: [{ since: '2026-05-18', to: `${SITE}/office`, by: 'anna' }],
        pieces: [
          {
            name: 'Card on the office door',
            slug: 'OFFICE',
            medium: 'print',
            source: 'door-card',
            place: 'Harbour office',
            sizeMm: 30,
            weekly: 22,
          },
        ],
      },
    ],
  },
  {
    name: 'Seal watching',
    utmCampaign: 'seals-26',
    startsOn: '2026-05-15',
    endsOn: '2026-09-15',
    season: 'summer',
    today: '2026-09-12',
    routes: [
      {
        name: 'Seal trips',
        leads: [
          { since: '2026-05-10', to: `${SITE}/seals`, by: 'jonas' },
          { since: '2026-06-22', to: `${SITE}/seals/book?utm_medium=web`, by: 'anna' },
          { since: '2026-08-03', to: `${SITE}/seals/waiting-list`, by: 'anna' },
          { since: '2026-08-12', to: `${SITE}/seals/book?utm_medium=web`, by: 'jonas' },
          { since: '2026-09-16', to: `${SITE}/seals/next-year`, by: 'anna' },
        ],
        pieces: [
          {
            name: 'Café coaster, Gull’s Rest',
            slug: 'COASTER1',
            medium: 'print',
            source: 'coaster',
            content: 'gulls-rest',
            place: 'Café Gull’s Rest',
            sizeMm: 30,
            weekly: 95,
          },
          {
            name: 'Café coaster, Old Boathouse',
            slug: 'COASTER2',
            medium: 'print',
            source: 'coaster',
            content: 'old-boathouse',
            place: 'Old Boathouse',
            sizeMm: 30,
            weekly: 70,
          },
          {
            name: 'Café coaster, Harbour Mill',
            slug: 'COASTER3',
            medium: 'print',
            source: 'coaster',
            content: 'harbour-mill',
            place: 'Harbour Mill',
            sizeMm: 30,
            weekly: 44,
            state: 'paused',
          },
          {
            name: 'Hotel desk card, Sandpiper',
            slug: 'SANDPIPER',
            medium: 'print',
            source: 'desk-card',
            content: 'sandpiper',
            place: 'Hotel Sandpiper',
            sizeMm: 28,
            weekly: 60,
          },
          {
            name: 'Hotel desk card, Dune House',
            slug: 'DUNEHOUSE',
            medium: 'print',
            source: 'desk-card',
            content: 'dune-house',
            place: 'Dune House',
            sizeMm: 28,
            weekly: 48,
          },
          {
            name: 'Pier banner, seals',
            slug: 'SEALS',
            medium: 'print',
            source: 'banner',
            content: 'pier',
            place: 'Ferry pier',
            sizeMm: 180,
            level: 'Q',
            weekly: 130,
          },
          {
            name: 'Screen in the ticket hall',
            slug: 'SEALSCREEN',
            medium: 'screen',
            source: 'hall-screen',
            place: 'Ticket hall',
            sizeMm: 120,
            weekly: 85,
          },
        ],
      },
    ],
  },
  {
    name: 'Season pass',
    utmCampaign: 'season-pass',
    startsOn: '2025-10-01',
    endsOn: '2026-12-31',
    season: 'year',
    today: '2026-11-24',
    routes: [
      {
        name: 'Pass form',
        leads: [
          { since: '2025-09-20', to: `${SITE}/pass?year=2026`, by: 'anna' },
          { since: '2026-10-12', to: `${SITE}/pass?year=2027`, by: 'anna' },
        ],
        pieces: [
          {
            name: 'Ticket wallet, season pass',
            slug: 'PASS',
            medium: 'print',
            source: 'ticket-wallet',
            content: 'pass',
            place: 'Handed out on board',
            sizeMm: 22,
            weekly: 90,
          },
          {
            name: 'Counter display',
            slug: 'COUNTER',
            medium: 'print',
            source: 'counter',
            place: 'Ticket counter',
            sizeMm: 40,
            weekly: 62,
          },
          {
            name: 'Newsletter footer',
            slug: 'LETTER',
            medium: 'email',
            source: 'newsletter',
            place: 'Monthly newsletter',
            sizeMm: 30,
            weekly: 34,
          },
          {
            name: 'Mailing to last year’s holders',
            slug: 'HOLDERS',
            medium: 'print',
            source: 'mailing',
            content: 'holders-25',
            place: 'By post',
            sizeMm: 25,
            weekly: 26,
          },
          {
            name: 'Family day flyer',
            slug: 'FAMILY',
            medium: 'print',
            source: 'flyer',
            content: 'family-day',
            place: 'Schools',
            sizeMm: 25,
            weekly: 18,
            state: 'archived',
          },
        ],
      },
      {
        name: 'Pass terms',
        state: 'paused',
        leads: [{ since: '2026-02-02', to: `${SITE}/pass/terms`, by: 'jonas' }],
        pieces: [
          {
            name: 'Small print on the pass',
            slug: 'TERMS',
            medium: 'print',
            source: 'pass-card',
            place: 'On every pass',
            sizeMm: 15,
            weekly: 9,
          },
        ],
      },
    ],
  },
  {
    name: 'Winter boats',
    utmCampaign: 'winter-25',
    startsOn: '2025-10-15',
    endsOn: '2026-03-27',
    season: 'winter',
    today: '2026-07-20',
    routes: [
      {
        name: 'Winter sailings',
        leads: [
          { since: '2025-09-22', to: `${SITE}/winter`, by: 'anna' },
          { since: '2026-01-12', to: `${SITE}/winter?storms=check`, by: 'jonas' },
        ],
        pieces: [
          {
            name: 'Winter poster, station',
            slug: 'STATION',
            medium: 'print',
            source: 'poster',
            content: 'station',
            place: 'Railway station',
            sizeMm: 60,
            weekly: 70,
          },
          {
            name: 'Winter poster, library',
            slug: 'LIBRARY',
            medium: 'print',
            source: 'poster',
            content: 'library',
            place: 'Town library',
            sizeMm: 60,
            weekly: 28,
          },
          {
            name: 'Advent calendar card',
            slug: 'ADVENT',
            medium: 'print',
            source: 'card',
            content: 'advent',
            place: 'Given to passengers',
            sizeMm: 20,
            weekly: 85,
          },
          {
            name: 'Local paper, half page',
            slug: 'PAPER',
            medium: 'print',
            source: 'local-paper',
            content: 'half-page',
            place: 'Saturday edition',
            sizeMm: 24,
            weekly: 46,
          },
          {
            name: 'Bakery bags',
            slug: 'BAGS',
            medium: 'print',
            source: 'bakery-bag',
            place: 'Three bakeries',
            sizeMm: 30,
            weekly: 52,
          },
        ],
      },
    ],
  },
  {
    name: 'Harbour festival',
    utmCampaign: 'festival-26',
    startsOn: '2026-08-21',
    endsOn: '2026-08-23',
    season: 'festival',
    today: '2026-09-05',
    routes: [
      {
        name: 'Festival programme',
        leads: [
          { since: '2026-08-10', to: `${SITE}/festival`, by: 'jonas' },
          { since: '2026-08-22', to: `${SITE}/festival/sunday`, by: 'jonas' },
          { since: '2026-08-24', to: `${SITE}/festival/pictures`, by: 'anna' },
        ],
        pieces: [
          {
            name: 'Programme leaflet',
            slug: 'FEST',
            medium: 'print',
            source: 'programme',
            place: 'Given out at the gates',
            sizeMm: 30,
            weekly: 1500,
          },
          {
            name: 'Stage banner',
            slug: 'STAGE',
            medium: 'print',
            source: 'banner',
            content: 'stage',
            place: 'Main stage',
            sizeMm: 400,
            level: 'H',
            weekly: 800,
          },
          {
            name: 'Cup sleeve',
            slug: 'CUPS',
            medium: 'print',
            source: 'cup',
            place: 'Drinks stalls',
            sizeMm: 25,
            weekly: 600,
          },
        ],
      },
    ],
  },
  {
    // Still being planned, with the slips a plan has before it is looked over.
    name: 'Winter boats 2026',
    utmCampaign: 'winter-26',
    startsOn: '2026-12-01',
    endsOn: '2027-03-26',
    season: 'winter',
    today: '2026-12-02',
    host: 'qr.saltmarsh.example',
    routes: [
      {
        name: 'Winter sailings 2026',
        leads: [{ since: '2026-11-12', to: `${SITE}/winter?year=2026`, by: 'jonas' }],
        pieces: [
          {
            name: 'Winter poster, station',
            slug: 'W26-STATION',
            medium: 'print',
            source: 'poster',
            content: 'station',
            place: 'Railway station',
            sizeMm: 60,
            weekly: 24,
          },
          {
            name: 'Winter poster, library',
            slug: 'W26-LIBRARY',
            medium: 'print',
            source: 'poster',
            content: 'station',
            place: 'Town library',
            sizeMm: 60,
            weekly: 0,
          },
          {
            name: 'Ticket wallet, winter',
            slug: 'W26-TICKET',
            medium: 'print',
            source: 'Ticket_Wallet',
            content: 'winter',
            place: 'Handed out on board',
            sizeMm: 11,
            weekly: 30,
          },
          {
            name: 'Local paper, half page',
            slug: 'W26-PAPER',
            medium: 'print',
            source: 'local paper',
            content: 'half-page',
            place: 'Saturday edition',
            sizeMm: 24,
            weekly: 0,
          },
          {
            name: 'Call-us card',
            slug: 'W26-PHONE',
            medium: 'give-away',
            source: 'card',
            content: '+49 4931 555 0142',
            place: 'Ticket counter',
            sizeMm: 20,
            weekly: 0,
          },
        ],
      },
      {
        name: 'Storm service',
        leads: [{ since: '2026-11-14', to: `${SITE}/old/storms`, by: 'anna' }],
        pieces: [
          {
            name: 'Storm notice, pier',
            slug: 'W26-STORM',
            medium: 'print',
            source: 'notice',
            content: 'pier',
            place: 'Ferry pier',
            sizeMm: 50,
            weekly: 0,
          },
        ],
      },
    ],
  },
]
