import cities from './places.json' with { type: 'json' }

/** A real city and some network addresses that the city database puts there. */
export interface StandInPlace {
  readonly id: string
  readonly country: string
  readonly city: string
  readonly addresses: readonly string[]
}

export const STANDIN_PLACES: readonly StandInPlace[] = cities.map(({ country, city, addresses }) => ({
  id: `${country}-${city}`.toLowerCase().replace(/\W+/g, '-'),
  country,
  city,
  addresses,
}))

/** One of a place's networks with another last number: any of its addresses is thought to be in the same city. */
export function addressIn(place: StandInPlace, network: number, host: number): string {
  const address = place.addresses[network % place.addresses.length] ?? '192.0.2.1'
  return address.replace(/\d+$/, String(1 + (host % 254)))
}
