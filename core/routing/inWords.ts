import same from 'fast-deep-equal'
import { momentInWords, whoInWords } from '../conditions/index.ts'
import type { Answer, Lane, LaneOutcome, Life, Rules } from './rules.ts'

/** An address as people say it: without its scheme and its query. */
export function addressInWords(address: string): string {
  return (address.replace(/^https?:\/\//i, '').split(/[?#]/, 1)[0] ?? address).replace(/\/$/, '')
}

/** What rules know by a number or a key alone, by its name. */
export interface Names {
  readonly route: (id: number) => string
  readonly page: (id: number) => string
  readonly tag: (id: string) => string
}

/** Names for where none are known. */
export const NO_NAMES: Names = {
  route: (id) => `route ${String(id)}`,
  page: (id) => `page ${String(id)}`,
  tag: (id) => id,
}

/** Where an answer leads, in a few words: “the page Winter timetable”. */
export function answerInWords(answer: Answer, names: Pick<Names, 'page'> = NO_NAMES): string {
  if (answer.kind === 'address') return addressInWords(answer.address)
  return answer.kind === 'message'
    ? `the message “${answer.title}”`
    : `the page “${names.page(answer.pageId)}”`
}

/** What a lane does, in words. */
export function outcomeInWords(outcome: LaneOutcome, names: Pick<Names, 'route' | 'page'>): string {
  if (outcome.kind === 'route') return `the route “${names.route(outcome.routeId)}”`
  if (outcome.kind !== 'split') return answerInWords(outcome, names)
  const live = outcome.variants.filter(({ ended }) => !ended)
  const sum = live.reduce((total, { weight }) => total + weight, 0)
  return live
    .map(
      ({ name, weight, leads }) =>
        `${sum === 0 ? '0' : ((100 * weight) / sum).toFixed(0)} % ${name}: ${answerInWords(leads, names)}`,
    )
    .join(', ')
}

/** A lane as a sentence: "Phones in Germany or Austria, on weekdays → saltmarsh.example/fahrplan". */
export function laneInWords(
  { condition, outcome, resting }: Lane,
  names: Pick<Names, 'route' | 'page'>,
): string {
  return `${whoInWords(condition)} → ${outcomeInWords(outcome, names)}${resting ? ' (turned off)' : ''}`
}

/** What bounds a route, in sentences. */
export function lifeInWords(
  { startsAt, endsAt, limit, daily, once, before, after, full, fullToday }: Life,
  names: Pick<Names, 'page'> = NO_NAMES,
): string[] {
  const then = (answer: Answer | null, plain: string) =>
    answer === null ? plain : answerInWords(answer, names)
  return [
    ...(startsAt === ''
      ? []
      : [`Begins ${momentInWords(startsAt)}; before it, ${then(before, 'a page says so')}.`]),
    ...(endsAt === '' ? [] : [`Ends ${momentInWords(endsAt)}; after it, ${then(after, 'a page says so')}.`]),
    ...(limit === null
      ? []
      : [`Lets ${limit.toLocaleString('en-GB')} scans through; then ${then(full, 'a page says so')}.`]),
    ...(daily === null
      ? []
      : [
          `Lets ${daily.toLocaleString('en-GB')} scans a day through; then ${then(fullToday, 'a page says so')}.`,
        ]),
    ...(once && (limit !== null || daily !== null) ? ['Counts a visitor once a day.'] : []),
  ]
}

interface Live {
  readonly destination: string
  readonly rules: Rules
}

const laneName = ({ name, condition }: Lane) => `“${name === '' ? whoInWords(condition) : name}”`

/** The differences between what was live and what is to be, in words; in the order they stand on the route. */
export function changesInWords(was: Live, is: Live, names: Names): string[] {
  const before = new Map(was.rules.lanes.map((lane) => [lane.id, lane]))
  const after = new Set(is.rules.lanes.map(({ id }) => id))
  const said: string[] = []
  for (const lane of is.rules.lanes) {
    const old = before.get(lane.id)
    if (!old) {
      said.push(`a new lane: ${laneInWords(lane, names)}`)
      continue
    }
    if (!same(old.condition, lane.condition))
      said.push(`the lane ${laneName(old)} now takes: ${whoInWords(lane.condition)}`)
    if (!same(old.outcome, lane.outcome))
      said.push(
        `the lane ${laneName(lane)} now leads to ${outcomeInWords(lane.outcome, names)} instead of ${outcomeInWords(old.outcome, names)}`,
      )
    if (old.resting !== lane.resting)
      said.push(`the lane ${laneName(lane)} ${lane.resting ? 'is turned off' : 'is turned on'}`)
    if (old.name !== lane.name) said.push(`the lane ${laneName(old)} is now called ${laneName(lane)}`)
  }
  for (const lane of was.rules.lanes) if (!after.has(lane.id)) said.push(`the lane ${laneName(lane)} is gone`)
  const kept = (lanes: readonly Lane[], others: ReadonlySet<string>) =>
    lanes.filter(({ id }) => others.has(id)).map(({ id }) => id)
  if (!same(kept(was.rules.lanes, after), kept(is.rules.lanes, new Set(before.keys()))))
    said.push('the lanes stand in another order')
  if (!same(was.rules.shared, is.rules.shared))
    said.push(
      is.rules.shared === null
        ? 'no shared lanes are asked any more'
        : `shared lanes are asked ${is.rules.shared.place === 'first' ? 'before' : 'after'} its own`,
    )
  if (was.destination !== is.destination)
    said.push(`everything else leads to ${is.destination} instead of ${was.destination}`)
  if (was.rules.language !== is.rules.language)
    said.push(
      is.rules.language === ''
        ? 'the language of the destination is no longer named'
        : `the destination is in ${is.rules.language}`,
    )
  if (!same(was.rules.life, is.rules.life))
    said.push(
      is.rules.life === null || lifeInWords(is.rules.life, names).length === 0
        ? 'nothing bounds it any more'
        : lifeInWords(is.rules.life, names).join(' ').replace(/\.$/, ''),
    )
  if (!same(was.rules.askLocation, is.rules.askLocation))
    said.push(
      is.rules.askLocation === null
        ? 'phones are no longer asked where they are'
        : 'phones are asked where they are',
    )
  said.push(
    ...is.rules.tags
      .filter((id) => !was.rules.tags.includes(id))
      .map((id) => `the visit tag “${names.tag(id)}” fires on the way`),
  )
  said.push(
    ...was.rules.tags
      .filter((id) => !is.rules.tags.includes(id))
      .map((id) => `the visit tag “${names.tag(id)}” no longer fires`),
  )
  return said
}
