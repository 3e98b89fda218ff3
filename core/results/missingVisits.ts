import { number, quantity } from '../formats/index.ts'

/** Why an analytics suite may not show the visits of a piece, in the order in which it is gone through. */
export const MISSING_REASONS = [
  'nobody',
  'tests',
  'elsewhere',
  'failing',
  'tags',
  'early',
  'channel',
  'few',
] as const
export type MissingReason = (typeof MISSING_REASONS)[number]

/** What is known of a piece. */
export interface MissingFacts {
  /** Scans of people in the period, and how many of them were sent on to an address. */
  readonly scans: number
  readonly redirected: number
  readonly uniques: number
  /** Test scans in the period. */
  readonly tests: number
  /** When it was scanned last (UTC ms); null for never. */
  readonly lastAt: number | null
  readonly medium: string
  /** The channel that its tags fall in; empty for none. */
  readonly channel: string
  /** What following its address came to just now; null where that is not known. */
  readonly check: {
    readonly isReached: boolean
    readonly lost: readonly string[]
    /** The address on whose redirect they were lost; null where the first address has none of them already. */
    readonly lostAt: string | null
    readonly sentence: string
  } | null
  readonly now: number
}

export interface MissingVerdict {
  readonly reason: MissingReason
  /** Whether it holds, may play a part, or does not; null where it cannot be said. */
  readonly holds: 'yes' | 'maybe' | 'no' | null
  readonly sentence: string
}

const HOUR_MS = 3_600_000
/** Analytics suites may take so long to show a visit (common practice). */
export const SUITE_HOURS = 48
/** Suites hide smaller numbers of visitors where they would identify people (common practice; the number is ours). */
export const FEW_VISITORS = 50

/** Goes through the usual reasons. Those that hold explain why nothing is shown; that one may be is worth a look. */
export function missingVisits(facts: MissingFacts): MissingVerdict[] {
  return MISSING_REASONS.map((reason) => ({ reason, ...judge[reason](facts) }))
}

type Judge = (facts: MissingFacts) => Omit<MissingVerdict, 'reason'>
const verdict = (holds: MissingVerdict['holds'], sentence: string) => ({ holds, sentence })
const UNCHECKED = verdict(null, 'The address was not followed yet.')

const judge: Readonly<Record<MissingReason, Judge>> = {
  nobody: ({ scans, tests }) =>
    scans + tests === 0
      ? verdict('yes', 'Nobody scanned this piece in these days. Is it hanging, and does its symbol read?')
      : verdict('no', 'It was scanned in these days.'),
  tests: ({ scans, tests }) =>
    scans === 0 && tests > 0
      ? verdict('yes', 'Only test scans were made. They lead to the site, and count in no figure of Flimbo.')
      : verdict('no', 'People scanned it.'),
  elsewhere: ({ scans, redirected }) => {
    if (scans === 0 || redirected === scans) return verdict('no', 'Every scan was sent to an address.')
    const rest = 'shown a page of Flimbo, a message or a question, which your suite does not see'
    return redirected === 0
      ? verdict('yes', `No scan was sent to the site: each was ${rest}.`)
      : verdict('maybe', `${number(scans - redirected)} of ${number(scans)} scans were ${rest}.`)
  },
  failing: ({ check }) => {
    if (!check) return UNCHECKED
    return check.isReached ? verdict('no', 'The address answers.') : verdict('yes', check.sentence)
  },
  tags: ({ check }) => {
    if (!check?.isReached) return check ? verdict(null, 'The address does not answer.') : UNCHECKED
    if (check.lost.length === 0) return verdict('no', 'All tags are in the final address.')
    const names = check.lost.join(', ')
    return check.lostAt === null
      ? verdict('yes', `${names} are not in the address at all. Look at the tags of the piece.`)
      : verdict(
          'yes',
          `A redirect at ${check.lostAt} drops ${names}. Lead straight to the final page, or have the site keep the query.`,
        )
  },
  early: ({ lastAt, now }) => {
    if (lastAt === null) return verdict('no', 'There is nothing that could be shown yet.')
    const hours = Math.floor((now - lastAt) / HOUR_MS)
    return hours < SUITE_HOURS
      ? verdict(
          'maybe',
          `The latest scan is ${hours === 0 ? 'less than an hour' : quantity(hours, 'hour')} old. Suites may take up to ${String(SUITE_HOURS)} hours to show a visit.`,
        )
      : verdict('no', `The latest scan is older than ${String(SUITE_HOURS)} hours.`)
  },
  channel: ({ channel, medium }) =>
    channel === ''
      ? verdict(
          'maybe',
          `The medium “${medium}” falls in no channel: such visits show as “unassigned”. Look under source and medium, or define a channel for it.`,
        )
      : verdict(
          'no',
          `Its tags fall in the channel “${channel}”, if your suite defines it as Settings › Channels does.`,
        ),
  few: ({ uniques, scans }) => {
    if (scans === 0) return verdict('no', 'There is nothing that could be hidden.')
    return uniques < FEW_VISITORS
      ? verdict(
          'maybe',
          `Only ${quantity(uniques, 'visitor')} came: suites hide small numbers under a threshold where they identify people. Reporting by device shows them.`,
        )
      : verdict('no', `${quantity(uniques, 'visitor')} are enough to be shown.`)
  },
}
