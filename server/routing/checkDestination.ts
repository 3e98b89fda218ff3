import { answersOf, readDestination, type Rules } from '@flimbo/core/routing'
import { wrongField } from '../api/index.ts'

/** Everything that reaches the front door. */
export interface Origins {
  origins(): readonly string[]
}

/** Why an address may be no destination, in a sentence; null where it may. */
export function destinationFault(address: string, domains: Origins): string | null {
  const reading = readDestination(address, domains.origins())
  return reading.ok ? null : reading.sentence
}

/** Refuses a destination that leads back to the front door; the contract has checked the rest. @throws Refusal */
export function checkDestination(
  destination: string | undefined,
  domains: Origins,
  field = 'destination',
): void {
  if (destination === undefined) return
  const fault = destinationFault(destination, domains)
  if (fault !== null) throw wrongField(field, fault)
}

/** The same for every address that lanes and bounds lead to. @throws Refusal */
export function checkAnswers(rules: Pick<Rules, 'lanes' | 'life'>, domains: Origins): void {
  for (const { where, answer } of answersOf(rules)) {
    const fault = answer.kind === 'address' ? destinationFault(answer.address, domains) : null
    if (fault !== null) throw wrongField('rules', `In ${where}: ${fault}`)
  }
}
