/**
 * What a row of `scan_rows` is while its fold is in force and it still stands there.
 * Its sums count: it must not.
 */
export const FOLDED_ROW = `EXISTS (SELECT 1 FROM folds f, codes c JOIN campaigns k ON k.id = c.campaignId
  WHERE c.id = scan_rows.codeId AND f.workspaceId = k.workspaceId AND f.fact = 'scans' AND scan_rows.id > f.clearedTo
    AND scan_rows.id <= f.lastId AND scan_rows.id <> f.keptId AND scan_rows.at < f.before)`
