import { textFromPlain } from '@flimbo/core/fields'
import { day, number, quantity } from '@flimbo/core/formats'
import { writeMail } from '@flimbo/core/mail'
import { timeKey } from '@flimbo/core/dimensions'
import { daysBefore, spanOfDays } from '@flimbo/core/time'
import { OF_NAMES, resultsPath, type SummaryEvery, type SummaryPeriod } from '@flimbo/core/watches'
import { tables, type Database, type MailRow, type WatchRow } from '../database/index.ts'
import type { Addresses } from '../line/index.ts'
import type { Letter, WriteLetter } from '../mail/index.ts'
import type { Reader } from '../reader/index.ts'
import { figuresAsked, plainQuestion, thingOf, type WatchedThing } from './things.ts'
import type { UnsubscribeLinks } from './unsubscribe.ts'

interface Parts {
  readonly database: Pick<Database, 'read'>
  readonly reader: Reader
  readonly addresses: Addresses
  readonly links: UnsubscribeLinks
}

/** Pieces, and leads, that a summary names. */
const PIECES = 5
const LEADS = 10
const HOUR_MS = 3_600_000
const NO_FIGURES = { scans: 0, uniques: 0, before: null }

interface About {
  readonly watch: WatchRow
  readonly thing: WatchedThing
  readonly to: Letter['to']
}

/** Writes what is mailed to who watches something: summaries, and what happened. */
export function watchLetters({ database: { read }, reader, addresses, links }: Parts): {
  summary: WriteLetter
  notice: WriteLetter
} {
  async function aboutOf({ watchId, personId }: MailRow): Promise<About | null> {
    const watch = watchId === null ? null : await read.findOneBy(tables.watches, { id: watchId })
    const person = personId === null ? null : await read.findOneBy(tables.people, { id: personId })
    const thing = watch && (await thingOf(read, watch, Date.now()))
    return watch && person && thing
      ? { watch, thing, to: { name: person.name, address: person.email } }
      : null
  }
  const whole = ({ watch, to }: About, written: Pick<Letter, 'subject' | 'text' | 'html'>): Letter => ({
    ...written,
    to,
    fromName: 'Flimbo',
    unsubscribe: addresses.office + links.pathOf(watch.id),
  })
  const resultsLink = ({ watch: { of, refId }, thing }: About) => ({
    label: 'Open the results',
    address: addresses.office + resultsPath({ campaignId: thing.campaign.id, of, refId }),
  })
  const stopNote = ({ watch }: About) =>
    `You receive this mail because you watch this ${OF_NAMES[watch.of]} in Flimbo. Stop it: ${addresses.office}${links.pathOf(watch.id)}`

  async function countedIn({ watch, thing }: About, { from, to, hour }: SummaryPeriod) {
    const [all, byHour] = await reader.ask('answers', {
      ...figuresAsked(watch, thing),
      from,
      to,
      before: hour === null ? daysBefore(from, to) : null,
      questions: [plainQuestion('piece'), ...(hour === null ? [] : [plainQuestion('hour')])],
    })
    const { rows = [], names = {}, total = NO_FIGURES } = all ?? {}
    if (hour !== null) {
      const { zone } = thing.campaign
      const ofHour = byHour?.rows.find(({ keys: [key] }) => key === timeKey(zone, 'hour', hour))
      return { tally: ofHour ?? NO_FIGURES, before: null, pieces: [] }
    }
    const pieces = rows.filter(({ scans }) => scans > 0).slice(0, PIECES)
    return {
      tally: total,
      before: total.before,
      pieces: pieces.map(({ keys: [key = ''], scans }) => ({ name: names.piece?.[key] ?? '', scans })),
    }
  }

  function leadsIn({ watch, thing }: About, { from, to, hour }: SummaryPeriod) {
    const { zone, id } = thing.campaign
    const span = hour === null ? spanOfDays(zone, from, to) : { start: hour, end: hour + HOUR_MS }
    const which = watch.of === 'code' ? { codeId: watch.refId } : {}
    return reader.ask(
      'leadsPage',
      { workspaceId: watch.workspaceId, ...span, campaignId: id, ...which, held: 'no' },
      'desc',
      LEADS,
      0,
    )
  }

  function whenInWords({ from, to, hour }: SummaryPeriod, zone: string): string {
    if (hour !== null) {
      const clock = new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' })
      return `${day(from)}, ${clock.format(hour)} to ${clock.format(hour + HOUR_MS)}`
    }
    return from === to ? day(from) : `${day(from)} to ${day(to)}`
  }

  return {
    async summary(mail) {
      const about = await aboutOf(mail)
      if (!about) return null
      // It was a period when it was stored.
      const period = mail.payload as SummaryPeriod & { every: SummaryEvery }
      const { tally, before, pieces } = await countedIn(about, period)
      const leads = await leadsIn(about, period)
      // Nobody wants to be told every hour that nothing happened.
      if (period.every === 'hour' && tally.scans === 0 && leads.total === 0) return null
      const { name, campaign } = about.thing
      const compared = before ? ` (${quantity(before.scans, 'scan')} in the time before)` : ''
      const written = writeMail({
        language: 'en',
        subject: `${name}: ${quantity(tally.scans, 'scan')}, ${whenInWords(period, campaign.zone)}`,
        blocks: textFromPlain(
          `${whenInWords(period, campaign.zone)} (${campaign.zone}), ${OF_NAMES[about.watch.of]} “${name}”: ${quantity(tally.scans, 'scan')}${compared}, ${number(tally.uniques)} of them unique, and ${quantity(leads.total, 'new lead')}.`,
        ),
        rows: [
          ...pieces.map(({ name: piece, scans }) => [piece, quantity(scans, 'scan')] as const),
          ...leads.rows.map(({ title, codeName }) => [title || 'Lead', `came by “${codeName}”`] as const),
        ],
        action: resultsLink(about),
        notes: [stopNote(about)],
      })
      return whole(about, written)
    },

    async notice(mail) {
      const about = await aboutOf(mail)
      if (!about) return null
      // It was one when it was stored.
      const { sentence } = mail.payload as { sentence: string }
      const written = writeMail({
        language: 'en',
        subject: sentence,
        blocks: textFromPlain(sentence),
        action: resultsLink(about),
        notes: [stopNote(about)],
      })
      return whole(about, written)
    },
  }
}
