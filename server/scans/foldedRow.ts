/** Rows of facts, and the fact they are of. */
export interface FactTable {
  readonly fact: string
  readonly table: string
}
export const SCAN_TABLE: FactTable = { fact: 'scans', table: 'scan_rows' }
export const EVENT_TABLE: FactTable = { fact: 'page-events', table: 'event_rows' }

/**
 * What a row of facts is while its fold is in force and it still stands there, as an SQL condition.
 * Its sums count: it must not.
 */
export const foldedRow = ({
  fact,
  table,
}: FactTable): string => `EXISTS (SELECT 1 FROM folds f, codes c JOIN campaigns k ON k.id = c.campaignId
  WHERE c.id = ${table}.codeId AND f.workspaceId = k.workspaceId AND f.fact = '${fact}' AND ${table}.id > f.clearedTo
    AND ${table}.id <= f.lastId AND ${table}.id <> f.keptId AND ${table}.at < f.before)`
export const FOLDED_ROW = foldedRow(SCAN_TABLE)
