import { clockFace, minutesOf, momentOf, withinHours } from '../time/index.ts'
import { canonicalTag } from '../scans/index.ts'
import { leavesOf, type CodeField, type Condition, type Leaf } from './condition.ts'
import { greatCircleKm } from './greatCircle.ts'
import { lookUp } from './lookUp.ts'
import { conditionInWords } from './inWords.ts'
import { seenInWords } from './seenInWords.ts'
import { inVersions } from './versions.ts'
import { pointOf, type ScannedCode, type Visit } from './visit.ts'

/** One condition as it was found: what it asks, what it saw, and whether it held. Inner ones are one deeper. */
export interface Check {
  readonly depth: number
  readonly asks: string
  /** What the scan showed; empty for all / any / not. */
  readonly saw: string
  readonly held: boolean
}

/** A condition made ready for many scans. */
export interface Test {
  holds(visit: Visit, code: ScannedCode): boolean
  /** The same answer, and every part of it noted, those too that the answer did not need. */
  explain(visit: Visit, code: ScannedCode, notes: Check[], depth?: number): boolean
}

/** The languages some conditions ask for, each once, in canonical spelling. */
export function languagesIn(conditions: readonly Condition[]): string[] {
  return [
    ...new Set(
      conditions
        .flatMap(leavesOf)
        .flatMap((leaf) => (leaf.kind === 'language' ? leaf.in.map(canonicalTag) : [])),
    ),
  ]
}

const VALUE_OF: Record<CodeField, (code: ScannedCode) => string> = {
  medium: ({ medium }) => medium,
  source: ({ source }) => source,
  content: ({ content }) => content,
  label: ({ label }) => label,
}

/**
 * Makes a condition ready. `speaks` are all languages that are to be had: a reader is given the one that
 * lookup by RFC 4647 leads to among them, so that a lane for one language does not take a reader who would
 * sooner read another.
 */
export function compileCondition(condition: Condition, speaks: readonly string[]): Test {
  const { kind } = condition
  if (kind === 'all' || kind === 'any') {
    const parts = condition.of.map((part) => compileCondition(part, speaks))
    const settles = kind === 'any'
    return {
      holds: (visit, code) => {
        for (const part of parts) if (part.holds(visit, code) === settles) return settles
        return !settles
      },
      explain: (visit, code, notes, depth = 0) => {
        const at =
          notes.push({
            depth,
            asks: parts.length === 0 ? conditionInWords(condition) : `${kind} of these`,
            saw: '',
            held: false,
          }) - 1
        const answers = parts.map((part) => part.explain(visit, code, notes, depth + 1))
        const held = settles ? answers.includes(true) : !answers.includes(false)
        notes[at] = { ...(notes[at] as Check), held }
        return held
      },
    }
  }
  if (kind === 'not') {
    const inner = compileCondition(condition.of, speaks)
    return {
      holds: (visit, code) => !inner.holds(visit, code),
      explain: (visit, code, notes, depth = 0) => {
        const at = notes.push({ depth, asks: 'not this', saw: '', held: false }) - 1
        const held = !inner.explain(visit, code, notes, depth + 1)
        notes[at] = { ...(notes[at] as Check), held }
        return held
      },
    }
  }
  const holds = leafTest(condition, speaks)
  return {
    holds,
    explain: (visit, code, notes, depth = 0) => {
      const held = holds(visit, code)
      notes.push({
        depth,
        asks: conditionInWords(condition),
        saw: seenInWords(condition, visit, code, speaks),
        held,
      })
      return held
    },
  }
}

/** The query of each visit that was asked for it, read once, whatever the number of conditions. */
const queries = new WeakMap<Visit, ReadonlyMap<string, readonly string[]>>()

function valuesIn(visit: Visit): ReadonlyMap<string, readonly string[]> {
  const known = queries.get(visit)
  if (known) return known
  const values = new Map<string, string[]>()
  for (const [name, value] of new URLSearchParams(visit.query)) {
    const there = values.get(name)
    if (there) there.push(value)
    else values.set(name, [value])
  }
  queries.set(visit, values)
  return values
}

function leafTest(leaf: Leaf, speaks: readonly string[]): Test['holds'] {
  switch (leaf.kind) {
    case 'country': {
      const wanted = new Set(leaf.in)
      return ({ place }) => wanted.has(place.country)
    }
    case 'region': {
      const wanted = new Set(leaf.in.map(({ country, region }) => `${country}/${region}`))
      return ({ place }) => wanted.has(`${place.country}/${place.region}`)
    }
    case 'city': {
      const wanted = new Set(leaf.in.map(({ country, city }) => `${country}/${city}`))
      return ({ place }) => wanted.has(`${place.country}/${place.city}`)
    }
    case 'near':
      return (visit) => {
        const point = pointOf(visit)
        return point !== null && greatCircleKm(point, leaf) <= leaf.km
      }
    case 'distance':
      return (visit, { place }) => {
        const point = pointOf(visit)
        return point !== null && place !== null && greatCircleKm(point, place) > leaf.km === leaf.beyond
      }
    case 'device': {
      const wanted = new Set<string>(leaf.in)
      return ({ device }) => wanted.has(device.type)
    }
    case 'system':
      return ({ device }) =>
        device.system === leaf.is && inVersions(device.systemVersion, leaf.from, leaf.upTo)
    case 'browser': {
      const wanted = new Set(leaf.in)
      return ({ device }) => wanted.has(device.browser)
    }
    case 'language': {
      const wanted = new Set(leaf.in.map(canonicalTag))
      return ({ languages }) => {
        const found = lookUp(languages, speaks)
        return found !== null && wanted.has(found)
      }
    }
    case 'window': {
      const from = leaf.from === '' ? -Infinity : momentOf(leaf.zone, leaf.from)
      const upTo = leaf.upTo === '' ? Infinity : momentOf(leaf.zone, leaf.upTo)
      return ({ at }) => at >= from && at < upTo
    }
    case 'hours': {
      const [days, from, upTo] = [new Set(leaf.days), minutesOf(leaf.from), minutesOf(leaf.upTo)] as const
      return ({ at }) => withinHours(clockFace(leaf.zone, at), days, from, upTo)
    }
    case 'visit':
      return ({ repeat }) => repeat === (leaf.is === 'repeat')
    case 'code': {
      const [wanted, valueOf] = [new Set(leaf.in), VALUE_OF[leaf.field]] as const
      return (_visit, code) => wanted.has(valueOf(code))
    }
    case 'query': {
      const wanted = new Set(leaf.in)
      return (visit) =>
        visit.query !== '' &&
        (valuesIn(visit).get(leaf.name) ?? []).some((value) => wanted.size === 0 || wanted.has(value))
    }
  }
}
