import type Sqlite from 'better-sqlite3'
import type { Of } from '@flimbo/core/scans'
import { ownerKey, type Owner } from '../figures/index.ts'

/** A scope, narrowed to some of its codes where `codeIds` says which; or all of a client's or of a workspace's. */
export type Within = Of & {
  readonly codeIds?: readonly number[] | undefined
  readonly workspaceId?: number | undefined
}

/** What is meant of a workspace: what is named, or everything. */
export const withinOf = ({ clientId, campaignId, routeId, codeId }: Of, workspaceId: number): Within => {
  const of = { clientId, campaignId, routeId, codeId }
  return Object.values(of).every((id) => id === undefined) ? { workspaceId } : of
}

/** The SQL condition on `codes` that a scope stands for, and its value. */
export function scopeCondition(scope: Within): { condition: string; value: number | string } {
  if (scope.codeIds !== undefined)
    return { condition: 'codes.id IN (SELECT value FROM json_each(?))', value: JSON.stringify(scope.codeIds) }
  if (scope.codeId !== undefined) return { condition: 'codes.id = ?', value: scope.codeId }
  if (scope.routeId !== undefined) return { condition: 'codes.routeId = ?', value: scope.routeId }
  if (scope.campaignId !== undefined) return { condition: 'codes.campaignId = ?', value: scope.campaignId }
  const of = scope.clientId === undefined ? 'workspaceId' : 'clientId'
  return {
    condition: `codes.campaignId IN (SELECT id FROM campaigns WHERE ${of} = ?)`,
    value: scope.clientId ?? scope.workspaceId ?? 0,
  }
}

/** Whose scans a scope means: those of the codes that are in it now. */
export function scopeOwner(
  database: Sqlite.Database,
  scope: Within,
): Owner & { readonly codes: ReadonlySet<number> } {
  const { condition, value } = scopeCondition(scope)
  const ids = database.prepare(`SELECT codes.id FROM codes WHERE ${condition}`).pluck().all(value) as number[]
  return { codes: new Set(ids), key: scopeKey(scope) }
}

/** What keeps a sheet of the scope, where anything does. */
export function scopeKey({ codeIds, codeId, routeId, campaignId }: Within): string | null {
  if (codeIds !== undefined) return null
  if (codeId !== undefined) return ownerKey('code', codeId)
  if (routeId !== undefined) return ownerKey('route', routeId)
  return campaignId === undefined ? null : ownerKey('campaign', campaignId)
}
