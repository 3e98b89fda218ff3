import { momentOf } from '../time/index.ts'
import type { FormSettings } from './formFields.ts'

/** Whether a form takes answers now, and if not, why. */
export type FormState = 'open' | 'early' | 'closed' | 'full'

/**
 * Whether a form takes answers at a moment.
 *
 * @param zone whose clock its moments are read from
 * @param now UTC milliseconds
 * @param answers how many it has taken
 */
export function formState(
  { opens, closes, limit }: Pick<FormSettings, 'opens' | 'closes' | 'limit'>,
  zone: string,
  now: number,
  answers: number,
): FormState {
  if (opens !== '' && now < momentOf(zone, opens)) return 'early'
  if (closes !== '' && now >= momentOf(zone, closes)) return 'closed'
  return limit !== null && answers >= limit ? 'full' : 'open'
}
