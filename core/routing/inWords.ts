import same from 'fast-deep-equal'
import { momentInWords, whoInWords } from '../conditions/index.ts'
import type { Answer, Lane, LaneOutcome, Life, Rules } from './rules.ts'

/** An address as people say it: without its scheme and its query. */
export function addressInWords(address: string): string {
  return (address.replace(/^https?:\/\//i, '').split(/[?#]/, 1)[0] ?? address).replace(/\/$/, '')
}

export function answerInWords(answer: Answer): string {
  return answer.kind === 'address' ? addressInWords(answer.address) : `the message “${answer.title}”`
}

/** What a lane does, in words. `nameOf` names other routes. */
export function outcomeInWords(outcome: LaneOutcome, nameOf: (routeId: number) => string): string {
  if (outcome.kind === 'route') return `the route “${nameOf(outcome.routeId)}”`
  if (outcome.kind !== 'split') return answerInWords(outcome)
  const live = outcome.variants.filter(({ ended }) => !ended)
  const sum = live.reduce((total, { weight }) => total + weight, 0)
  return live.map(({ name, weight, leads }) => `${sum === 0 ? '0' : ((100 * weight) / sum).toFixed(0)} % ${name}: ${answerInWords(leads)}`).join(', ')
}

/** A lane as a sentence: "Phones in Germany or Austria, on weekdays → saltmarsh.example/fahrplan". */
export function laneInWords({ condition, outcome, resting }: Lane, nameOf: (routeId: number) => string): string {
  return `${whoInWords(condition)} → ${outcomeInWords(outcome, nameOf)}${resting ? ' (resting)' : ''}`
}

/** What bounds a route, in sentences. */
export function lifeInWords({ startsAt, endsAt, limit, daily, before, after, full, fullToday }: Life): string[] {
  const then = (answer: Answer | null, plain: string) => (answer === null ? plain : answerInWords(answer))
  return [
    ...(startsAt === '' ? [] : [`Begins ${momentInWords(startsAt)}; before it, ${then(before, 'a page says so')}.`]),
    ...(endsAt === '' ? [] : [`Ends ${momentInWords(endsAt)}; after it, ${then(after, 'a page says so')}.`]),
    ...(limit === null ? [] : [`Lets ${limit.toLocaleString('en-GB')} scans through; then ${then(full, 'a page says so')}.`]),
    ...(daily === null ? [] : [`Lets ${daily.toLocaleString('en-GB')} scans a day through; then ${then(fullToday, 'a page says so')}.`]),
  ]
}

interface Live { readonly destination: string; readonly rules: Rules }

const laneName = ({ name, condition }: Lane) => `“${name === '' ? whoInWords(condition) : name}”`

/**
 * The differences between what was live and what is to be, in words; in the order they stand on the route.
 * `nameOf` names other routes, `tagOf` visit tags by their key.
 */
export function changesInWords(was: Live, is: Live, nameOf: (routeId: number) => string, tagOf: (id: string) => string = (id) => id): string[] {
  const before = new Map(was.rules.lanes.map((lane) => [lane.id, lane]))
  const after = new Set(is.rules.lanes.map(({ id }) => id))
  const said: string[] = []
  for (const lane of is.rules.lanes) {
    const old = before.get(lane.id)
    if (!old) { said.push(`a new lane: ${laneInWords(lane, nameOf)}`); continue }
    if (!same(old.condition, lane.condition)) said.push(`the lane ${laneName(old)} now takes: ${whoInWords(lane.condition)}`)
    if (!same(old.outcome, lane.outcome)) said.push(`the lane ${laneName(lane)} now leads to ${outcomeInWords(lane.outcome, nameOf)} instead of ${outcomeInWords(old.outcome, nameOf)}`)
    if (old.resting !== lane.resting) said.push(`the lane ${laneName(lane)} ${lane.resting ? 'rests' : 'takes scans again'}`)
    if (old.name !== lane.name) said.push(`the lane ${laneName(old)} is now called ${laneName(lane)}`)
  }
  for (const lane of was.rules.lanes) if (!after.has(lane.id)) said.push(`the lane ${laneName(lane)} is gone`)
  const kept = (lanes: readonly Lane[], others: ReadonlySet<string>) => lanes.filter(({ id }) => others.has(id)).map(({ id }) => id)
  if (!same(kept(was.rules.lanes, after), kept(is.rules.lanes, new Set(before.keys())))) said.push('the lanes stand in another order')
  if (!same(was.rules.shared, is.rules.shared)) said.push(is.rules.shared === null ? 'no shared lanes are asked any more' : `shared lanes are asked ${is.rules.shared.place === 'first' ? 'before' : 'after'} its own`)
  if (was.destination !== is.destination) said.push(`everything else leads to ${is.destination} instead of ${was.destination}`)
  if (was.rules.language !== is.rules.language) said.push(is.rules.language === '' ? 'the language of the destination is no longer named' : `the destination is in ${is.rules.language}`)
  if (!same(was.rules.life, is.rules.life)) said.push(is.rules.life === null || lifeInWords(is.rules.life).length === 0 ? 'nothing bounds it any more' : lifeInWords(is.rules.life).join(' ').replace(/\.$/, ''))
  if (!same(was.rules.askLocation, is.rules.askLocation)) said.push(is.rules.askLocation === null ? 'phones are no longer asked where they are' : 'phones are asked where they are')
  said.push(...is.rules.tags.filter((id) => !was.rules.tags.includes(id)).map((id) => `the visit tag “${tagOf(id)}” fires on the way`))
  said.push(...was.rules.tags.filter((id) => !is.rules.tags.includes(id)).map((id) => `the visit tag “${tagOf(id)}” no longer fires`))
  return said
}
