import { readUrl } from '../api/index.ts'
import type { ReceivedHit } from './contract.ts'
import type { VisitTag } from './visitTag.ts'

/**
 * Whether a hit that a collector received is one of a tag: it came to the tag's site, and, where the collector told the
 * tag's own ID among its values or in its path, with that ID. Workspaces that share a collector see their own hits.
 */
export function isHitOf(
  { address, value }: Pick<VisitTag, 'address' | 'value'>,
  { site, path, values }: Pick<ReceivedHit, 'site' | 'path' | 'values'>,
): boolean {
  const url = readUrl(address)
  if (url?.hostname !== site) return false
  const tells = /\{id\}|%7Bid%7D/i.test(address)
  const isNamed = values.some(([, each]) => each === value) || path.includes(encodeURIComponent(value))
  // What a container sends goes where it was fetched from, under another name.
  return (
    isNamed || (!tells && !values.some(([name]) => name === 'id') && folder(url.pathname) === folder(path))
  )
}

const folder = (path: string) => path.slice(0, path.lastIndexOf('/') + 1)
