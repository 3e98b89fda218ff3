import { addReference } from '@flimbo/core/goals'
import type { Reference, References } from '../goals/index.ts'
import type { Posting } from '../routing/index.ts'

export interface ReferenceParts {
  readonly references: References
}

/** An address with the reference of the scan that leads there, where the campaign wants sites to be told. */
export function withReference(
  { references }: ReferenceParts,
  { referenceHours: hours }: Pick<Posting, 'referenceHours'>,
  scan: Omit<Reference, 'hours'>,
  address: string,
): string {
  if (hours === 0 || scan.scanId === 0) return address
  const { codeId, scanId, routeId, at, apart } = scan
  return addReference(address, references.issue({ codeId, scanId, routeId, at, hours, apart }))
}
