import { shiftDay, dayIn, momentOf } from '../../time/index.ts'
import { fill } from '../../words/index.ts'
import {
  html,
  type Markup,
  openState,
  slotsOn,
  type OpeningHours,
  type OpeningSlot,
  said,
} from '../../fields/index.ts'
import type { PartOf } from '../parts.ts'
import { wordsIn } from './shared.ts'
import type { Surroundings } from './surroundings.ts'

const MONDAY = '2024-01-01'
const DAY_MS = 86_400_000
/** Days that are otherwise are shown so long before they come. */
const SOON_DAYS = 45

const formats = new Map<string, Intl.DateTimeFormat>()
function format(language: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = JSON.stringify([language, options])
  const known = formats.get(key) ?? new Intl.DateTimeFormat(language, options)
  formats.set(key, known)
  return known
}
const CLOCK = { hour: 'numeric', minute: '2-digit' } as const
const clockOf = (language: string, time: string) =>
  format(language, { ...CLOCK, timeZone: 'UTC' }).format(Date.parse(`1970-01-01T${time}:00Z`))

const slotText = (language: string, { from, upTo }: OpeningSlot) =>
  `${clockOf(language, from)} – ${clockOf(language, upTo)}`

function slotsText(slots: readonly OpeningSlot[], { language, spoken }: Surroundings): Markup {
  if (slots.length === 0) return html`${spoken.words.parts.closed}`
  return html`${slots.map((slot, i) => html`${i > 0 && ', '}${slotText(language, slot)}`)}`
}

/** Whether it is open now and until when, in words. */
function stateText(given: OpeningHours, { language, spoken, now, zone }: Surroundings): string {
  const { isOpen, until } = openState(given, now)
  const { openNow, closedNow, until: untilWhen, opens } = spoken.words.parts
  const state = isOpen ? openNow : closedNow
  if (until === null) return state
  // A time alone is understood of today; later, the day is said too.
  const isToday = until - now < DAY_MS && dayIn(zone, until) === dayIn(zone, now)
  const time = format(language, {
    ...CLOCK,
    timeZone: zone,
    ...(isToday || isOpen ? {} : { weekday: 'short' }),
  }).format(until)
  return `${state} · ${fill(isOpen ? untilWhen : opens, { time })}`
}

export function hoursPart({ label, hours }: PartOf<'hours'>, around: Surroundings): Markup | null {
  const { language, now, zone } = around
  const given: OpeningHours = { ...hours, zone }
  const today = dayIn(zone, now)
  const lines = hours.week.map((slots, i) => {
    const day = shiftDay(MONDAY, i)
    const name = format(language, { weekday: 'long', timeZone: 'UTC' }).format(Date.parse(day))
    return html`<div>
      <dt>${name}</dt>
      <dd>${slotsText(slots, around)}</dd>
    </div>`
  })
  const soon = hours.except
    .filter(({ from, to }) => to >= today && from <= shiftDay(today, SOON_DAYS))
    .map(({ from, to, note }) => {
      const days = format(language, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' })
      const name =
        from === to ? days.format(Date.parse(from)) : days.formatRange(Date.parse(from), Date.parse(to))
      const more = note === '' ? null : html`<small>${note}</small>`
      return html`<div>
        <dt>${name}${more}</dt>
        <dd>${slotsText(slotsOn(given, from), around)}</dd>
      </div>`
    })
  const head = wordsIn(around, label)
  return html`<section>
    ${head && html`<h2>${head}</h2>`}
    <p class="now">${stateText(given, around)}</p>
    <dl class="hours">${lines}${soon}</dl>
  </section>`
}

/** When an event is, as the language writes it. */
function whenText({ from, upTo, isWholeDay }: PartOf<'event'>, { language, zone }: Surroundings): string {
  const days = { weekday: 'short', day: 'numeric', month: 'long', year: 'numeric' } as const
  if (isWholeDay)
    return format(language, { ...days, timeZone: 'UTC' }).formatRange(
      Date.parse(from.slice(0, 10)),
      Date.parse(upTo.slice(0, 10)),
    )
  return format(language, { ...days, ...CLOCK, timeZone: zone }).formatRange(
    momentOf(zone, from),
    momentOf(zone, upTo),
  )
}

export function eventPart(given: PartOf<'event'>, around: Surroundings): Markup | null {
  const { id, label, from, upTo, place, description } = given
  const words = wordsIn(around, label)
  if (!words || from === '' || upTo === '' || upTo < from) return null
  const where = wordsIn(around, place)
  const more = wordsIn(around, description)
  return html`<section>
    <h2>${words}</h2>
    <p class="when">${whenText(given, around)}</p>
    ${where && html`<p>${where}</p>`}${more && html`<p>${more}</p>`}<a
      class="go quiet"
      href="${around.takeHref(id)}"
      >${around.spoken.words.parts.addToCalendar}</a
    >
  </section>`
}

const UNITS = [
  ['day', DAY_MS],
  ['hour', 3_600_000],
  ['minute', 60_000],
] as const

/** A time that is left, in its two largest units of days, hours and minutes, as a language writes it. */
export function leftText(ms: number, language: string): string {
  const counts: { unit: (typeof UNITS)[number][0]; n: number }[] = []
  let rest = Math.max(0, ms)
  for (const [unit, length] of UNITS) {
    counts.push({ unit, n: Math.floor(rest / length) })
    rest %= length
  }
  const first = Math.max(
    0,
    counts.findIndex(({ n }) => n > 0),
  )
  const shown = counts.every(({ n }) => n === 0) ? counts.slice(-1) : counts.slice(first, first + 2)
  return shown
    .filter(({ n }, i) => n > 0 || i === 0)
    .map(({ unit, n }) =>
      new Intl.NumberFormat(language, { style: 'unit', unit, unitDisplay: 'long' }).format(n),
    )
    .join(' ')
}

export function countdown({ label, moment, over }: PartOf<'countdown'>, around: Surroundings): Markup | null {
  if (moment === '') return null
  const at = momentOf(around.zone, moment)
  if (at <= around.now) {
    const after = wordsIn(around, over)
    return after && html`<p class="count">${after}</p>`
  }
  const words = wordsIn(around, label)
  if (!words) return null
  const { text } = said(around, over)
  const when = new Date(at).toISOString()
  return html`<p class="count">
    ${words} <time datetime="${when}" data-over="${text}">${leftText(at - around.now, around.language)}</time>
  </p>`
}
