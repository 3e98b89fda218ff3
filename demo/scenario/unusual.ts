/** What went otherwise than usual in the sample's last week: so many days before today, in the calendar of the fill. */
export const UNUSUAL = {
  /** A leaflet that is used up. */
  stopped: { slug: 'TIDE-EN', daysAgo: 6 },
  /** No boat leaves, and hardly anybody comes. */
  gale: { utmCampaigns: ['summer-26', 'seals-26'], daysAgo: 4, part: 0.05 },
  /** More than one comes from a piece or in an hour: `from` is the first hour, `hours` how many. */
  crowds: [
    // A letter is shown on local television.
    { slug: 'LETTER', daysAgo: 2, from: 9, hours: 12, scans: 220, who: 'passers' },
    // Two coaches at once.
    { slug: 'SEALS', daysAgo: 1, from: 11, hours: 1, scans: 85, who: 'passers' },
    // A travel group from far away.
    { slug: 'PIERHALL', daysAgo: 3, from: 10, hours: 5, scans: 150, who: 'abroad' },
    { slug: 'COUNTER', daysAgo: 5, from: 2, hours: 3, scans: 240, who: 'program' },
  ],
} as const

/** An address far from the coast, which the city database puts in Canada. */
export const ABROAD = '24.48.0.77'
