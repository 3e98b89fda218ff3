import { minutesOf } from '../time/index.ts'
import { asksNothing, type Condition, type Leaf } from './condition.ts'
import { greatCircleKm } from './greatCircle.ts'
import { inVersions } from './versions.ts'

const within = <T>(inner: readonly T[], outer: readonly T[]) => inner.every((value) => outer.includes(value))
const keys = (list: readonly object[]) => list.map((value) => JSON.stringify(Object.entries(value).sort()))

/** An upper end takes everything below it in: "17" reaches further than "17.9". */
const reaches = (outer: string, inner: string) =>
  inVersions(inner, '', outer) && !outer.startsWith(`${inner}.`)

function leafImplies(b: Leaf, a: Leaf): boolean {
  if (a.kind === 'country') {
    if (b.kind === 'country') return within(b.in, a.in)
    if (b.kind === 'region' || b.kind === 'city') return b.in.every(({ country }) => a.in.includes(country))
    return false
  }
  if (a.kind !== b.kind) return false
  switch (a.kind) {
    case 'region':
      return b.kind === 'region' && within(keys(b.in), keys(a.in))
    case 'city':
      return b.kind === 'city' && within(keys(b.in), keys(a.in))
    case 'near':
      return b.kind === 'near' && greatCircleKm(a, b) + b.km <= a.km
    case 'distance':
      return b.kind === 'distance' && a.beyond === b.beyond && (a.beyond ? b.km >= a.km : b.km <= a.km)
    case 'device':
      return b.kind === 'device' && within(b.in, a.in)
    case 'browser':
      return b.kind === 'browser' && within(b.in, a.in)
    case 'language':
      return b.kind === 'language' && within(b.in, a.in)
    case 'system':
      return (
        b.kind === 'system' &&
        a.is === b.is &&
        inVersions(b.from, a.from, '') &&
        (a.upTo === '' || reaches(a.upTo, b.upTo))
      )
    case 'window':
      return (
        b.kind === 'window' &&
        a.zone === b.zone &&
        (a.from === '' || (b.from !== '' && b.from >= a.from)) &&
        (a.upTo === '' || (b.upTo !== '' && b.upTo <= a.upTo))
      )
    case 'hours': {
      if (b.kind !== 'hours' || a.zone !== b.zone || !within(b.days, a.days)) return false
      const [aFrom, aTo, bFrom, bTo] = [a.from, a.upTo, b.from, b.upTo].map(minutesOf) as [
        number,
        number,
        number,
        number,
      ]
      const end = (from: number, upTo: number) => (upTo > from ? upTo : upTo + 1440)
      return bFrom >= aFrom && end(bFrom, bTo) <= end(aFrom, aTo)
    }
    case 'visit':
      return b.kind === 'visit' && a.is === b.is
    case 'code':
      return b.kind === 'code' && a.field === b.field && within(b.in, a.in)
    case 'query':
      return (
        b.kind === 'query' &&
        a.name === b.name &&
        (a.in.length === 0 || (b.in.length > 0 && within(b.in, a.in)))
      )
  }
}

/**
 * Whether every scan that meets `b` surely meets `a`. Sound and not complete: true is certain, false means
 * that it could not be shown.
 */
export function implies(b: Condition, a: Condition): boolean {
  if (a.kind === 'all') return a.of.every((part) => implies(b, part))
  if (b.kind === 'any') return b.of.every((part) => implies(part, a))
  if (a.kind === 'any' && a.of.some((part) => implies(b, part))) return true
  if (b.kind === 'all') return b.of.some((part) => implies(part, a))
  if (a.kind === 'any') return false
  if (a.kind === 'not') return b.kind === 'not' && implies(a.of, b.of)
  return b.kind !== 'not' && leafImplies(b, a)
}

const CASES_MAX = 200

/** A condition parted into cases, one value of each list at a time: together they are the condition. The condition alone where there were too many. */
export function casesOf(condition: Condition): Condition[] {
  const cases = parted(condition)
  return cases.length > 0 && cases.length <= CASES_MAX ? cases : [condition]
}

function parted(condition: Condition): Condition[] {
  if (condition.kind === 'all') {
    return condition.of.reduce<Condition[]>(
      (sofar, part) => {
        const next = parted(part)
        return sofar.length * next.length > CASES_MAX
          ? sofar.map((one) => joined(one, part))
          : sofar.flatMap((one) => next.map((each) => joined(one, each)))
      },
      [{ kind: 'all', of: [] }],
    )
  }
  if (condition.kind === 'any') return condition.of.flatMap(parted)
  if (condition.kind === 'hours') return condition.days.map((day) => ({ ...condition, days: [day] }))
  // Of a list of values a scan shows one; a query may bring several.
  if ('in' in condition && condition.kind !== 'query')
    return condition.in.map((value) => ({ ...condition, in: [value] }) as Condition)
  return [condition]
}

const joined = (a: Condition, b: Condition): Condition => ({
  kind: 'all',
  of: [...(a.kind === 'all' ? a.of : [a]), b],
})

/** Whether two parts of one `all` can surely not hold together. */
function disjoint(a: Condition, b: Condition): boolean {
  if (a.kind === 'not') return implies(b, a.of)
  if (b.kind === 'not') return implies(a, b.of)
  if (a.kind === 'country' && b.kind === 'country') return !a.in.some((value) => b.in.includes(value))
  if (a.kind === 'device' && b.kind === 'device') return !a.in.some((value) => b.in.includes(value))
  if (a.kind === 'browser' && b.kind === 'browser') return !a.in.some((value) => b.in.includes(value))
  if (a.kind === 'language' && b.kind === 'language') return !a.in.some((value) => b.in.includes(value))
  if (a.kind === 'system' && b.kind === 'system') return a.is !== b.is
  if (a.kind === 'visit' && b.kind === 'visit') return a.is !== b.is
  if (a.kind === 'near' && b.kind === 'near') return greatCircleKm(a, b) > a.km + b.km
  if (a.kind === 'window' && b.kind === 'window')
    return (
      a.zone === b.zone &&
      ((a.upTo !== '' && b.from !== '' && a.upTo <= b.from) ||
        (b.upTo !== '' && a.from !== '' && b.upTo <= a.from))
    )
  return false
}

/** Whether no scan can meet a condition. Sound and not complete. */
export function isImpossible(condition: Condition): boolean {
  if (condition.kind === 'any') return condition.of.every(isImpossible)
  if (condition.kind === 'not') return asksNothing(condition.of)
  if (condition.kind === 'window')
    return condition.from !== '' && condition.upTo !== '' && condition.from >= condition.upTo
  if (condition.kind !== 'all') return false
  return (
    condition.of.some(isImpossible) ||
    condition.of.some((a, i) => condition.of.slice(i + 1).some((b) => disjoint(a, b)))
  )
}
