import type { Content } from '@flimbo/core/contents'

/** Codes of the sample company that carry their content themselves. */
export interface SampleStaticCode {
  readonly name: string
  readonly place: string
  readonly sizeMm: number
  readonly content: Content
}

export const STATIC_CODES: readonly SampleStaticCode[] = [
  {
    name: 'Wi-Fi on board',
    place: 'On board, above each table',
    sizeMm: 40,
    content: {
      kind: 'wifi',
      security: 'WPA',
      name: 'Saltmarsh guests',
      password: 'low-tide-9',
      hidden: false,
    },
  },
  {
    name: 'Ticket office, contact',
    place: 'Ferry pier, ticket hall',
    sizeMm: 45,
    content: {
      kind: 'contact',
      version: '3.0',
      given: '',
      family: '',
      organisation: 'Saltmarsh Line',
      role: '',
      phone: '+49 4931 5550140',
      mobile: '',
      email: 'tickets@saltmarsh.example',
      web: 'https://saltmarsh.example',
      street: 'Am Anleger 3',
      postcode: '26506',
      town: 'Norden',
      country: 'Germany',
      note: '',
    },
  },
  {
    name: 'Pier, on the map',
    place: 'Leaflet, back',
    sizeMm: 25,
    content: { kind: 'place', latitude: 53.7031, longitude: 7.1502, label: 'Saltmarsh Line pier' },
  },
]
