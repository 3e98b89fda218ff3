import type Sqlite from 'better-sqlite3'
import type { Scope } from '@flimbo/core/scans'
import { ownerKey, type Owner } from '../figures/index.ts'

/** A scope, narrowed to some of its codes where `codeIds` says which. */
export type Within = Scope & { readonly codeIds?: readonly number[] | undefined }

/** The SQL condition on `codes` that a scope stands for, and its value. */
export function scopeCondition(scope: Within): { condition: string; value: number | string } {
  if (scope.codeIds !== undefined)
    return { condition: 'id IN (SELECT value FROM json_each(?))', value: JSON.stringify(scope.codeIds) }
  if (scope.codeId !== undefined) return { condition: 'id = ?', value: scope.codeId }
  if (scope.routeId !== undefined) return { condition: 'routeId = ?', value: scope.routeId }
  return { condition: 'campaignId = ?', value: scope.campaignId ?? 0 }
}

/** Whose scans a scope means: those of the codes that are in it now. */
export function scopeOwner(
  database: Sqlite.Database,
  scope: Within,
): Owner & { readonly codes: ReadonlySet<number> } {
  const { condition, value } = scopeCondition(scope)
  const ids = database.prepare(`SELECT id FROM codes WHERE ${condition}`).pluck().all(value) as number[]
  return { codes: new Set(ids), key: scopeKey(scope) }
}

/** What keeps a sheet of the scope, where anything does. */
export function scopeKey({ codeIds, codeId, routeId, campaignId }: Within): string | null {
  if (codeIds !== undefined) return null
  if (codeId !== undefined) return ownerKey('code', codeId)
  return routeId === undefined ? ownerKey('campaign', campaignId ?? 0) : ownerKey('route', routeId)
}
