import same from 'fast-deep-equal'
import type { Condition } from '../conditions/index.ts'
import type { Lane, Rules } from './rules.ts'

/** Systems that an app is offered for, as user agents name them. */
export const APP_SYSTEMS = [
  ['iOS', 'iPhone and iPad (iOS)'],
  ['Android', 'Android'],
  ['HarmonyOS', 'HarmonyOS'],
  ['Windows', 'Windows'],
  ['macOS', 'Mac (macOS)'],
  ['Linux', 'Linux'],
] as const
export type AppSystem = (typeof APP_SYSTEMS)[number][0]

/** Where phones of each system are led, by the system; those of no other are led where the route itself leads. */
export interface AppSwitch {
  readonly addresses: Partial<Readonly<Record<AppSystem, string>>>
  readonly otherwise: string
}

interface Switched {
  readonly destination: string
  readonly rules: Rules
}

const system = (is: string): Condition => ({ kind: 'system', is, from: '', upTo: '' })

/** Scans of a system, whatever its version; tablets that call theirs something else have the same apps. */
function conditionOf(name: AppSystem): Condition {
  return name === 'iOS' ? { kind: 'any', of: [system('iOS'), system('iPadOS')] } : system(name)
}

/** The system whose scans a lane leads to an address, and no others; null where it asks anything else. */
function systemOf({ condition, outcome }: Lane): AppSystem | null {
  if (outcome.kind !== 'address') return null
  const single = condition.kind === 'all' && condition.of.length === 1 ? condition.of[0] : condition
  const found = APP_SYSTEMS.find(([name]) => same(single, conditionOf(name)) || same(single, system(name)))
  return found?.[0] ?? null
}

/** What a route's lanes say of systems: the first lane of each counts. */
export function appSwitchIn({ destination, rules }: Switched): AppSwitch {
  const addresses: Partial<Record<AppSystem, string>> = {}
  for (const lane of rules.lanes) {
    const name = systemOf(lane)
    if (name !== null && lane.outcome.kind === 'address') addresses[name] ??= lane.outcome.address
  }
  return { addresses, otherwise: destination }
}

/**
 * The same route with lanes that lead each system to its address: a lane there is changes, a new one comes after all others,
 * and one of a system without an address goes. All other lanes stay as they are.
 */
export function withAppSwitch<S extends Switched>(was: S, { addresses, otherwise }: AppSwitch): S {
  const placed = new Set<AppSystem>()
  const lanes = was.rules.lanes.flatMap((lane): Lane[] => {
    const name = systemOf(lane)
    if (name === null) return [lane]
    const address = addresses[name] ?? ''
    if (address === '' || placed.has(name)) return []
    placed.add(name)
    return [{ ...lane, outcome: { kind: 'address', address } }]
  })
  const taken = new Set(lanes.map(({ id }) => id))
  for (const [name] of APP_SYSTEMS) {
    const address = addresses[name] ?? ''
    if (address === '' || placed.has(name)) continue
    const id = freeKey(`app${name.toLowerCase()}`, taken)
    taken.add(id)
    const outcome = { kind: 'address', address } as const
    lanes.push({ id, name: '', condition: conditionOf(name), outcome, resting: false })
  }
  return { ...was, destination: otherwise, rules: { ...was.rules, lanes } }
}

function freeKey(wanted: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wanted)) return wanted
  for (let n = 2; ; n++) if (!taken.has(`${wanted}${String(n)}`)) return `${wanted}${String(n)}`
}
