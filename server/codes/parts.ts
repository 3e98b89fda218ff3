import type { Database } from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import type { Reader } from '../reader/index.ts'
import type { Doors } from '../line/index.ts'
import { destinationFault } from '../routing/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { Tagging } from '../tagging/index.ts'
import { readSetting, SETTINGS } from '../workspace/index.ts'
import type { House } from './change.ts'
import type { CodeSelection } from './select.ts'
import type { CodeViewer } from './views.ts'

export interface CodesParts {
  readonly database: Database
  readonly reader: Reader
  readonly reviewer: Reader
  readonly doors: Doors
  readonly live: LiveHub
  readonly domains: Domains
  readonly tagging: Tagging
  readonly selection: CodeSelection
  readonly viewer: CodeViewer
}

/** How many signs the short links of a workspace have that nobody chooses. */
export async function slugLengthOf({ read }: Pick<Database, 'read'>, workspaceId: number): Promise<number> {
  return (await readSetting(read, workspaceId, SETTINGS)).value.slugLength
}

/** What changes of a workspace's pieces are judged by. */
export async function houseOf(
  { domains, tagging }: Pick<CodesParts, 'domains' | 'tagging'>,
  workspaceId: number,
): Promise<House> {
  return {
    workspaceId,
    rules: await tagging.rulesOf(workspaceId),
    destinationFault: (address) => destinationFault(address, domains),
  }
}
