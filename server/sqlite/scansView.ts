// Scans are stored with numbers of what many have in common; whoever reads rows reads this view.
const COLUMNS =
  'id, at, codeId, routeId, revisionId, outcome, apart, isUnique, placeId, agentId, language, referrer, visitor, exit, variant'

const STORED = `SELECT s.id, s.at, s.codeId, w.routeId, w.revisionId, w.outcome, w.apart, s.isUnique, s.placeId, s.agentId,
  l.text AS language, r.text AS referrer,
  CASE length(s.visitor) WHEN 8 THEN lower(hex(s.visitor)) ELSE CAST(s.visitor AS TEXT) END AS visitor, w.exit, w.variant
  FROM scan_rows s CROSS JOIN ways w ON w.id = s.wayId
  CROSS JOIN words l ON l.id = s.languageId CROSS JOIN words r ON r.id = s.referrerId`

/** Hashes of visitors are kept as the bytes they stand for. */
export const packedVisitor = (text: string) =>
  `CASE length(${text}) WHEN 16 THEN ifnull(unhex(${text}), CAST(${text} AS BLOB)) ELSE CAST(${text} AS BLOB) END`

/** Scans as they are read: what is kept once is put back in its place. */
export const SCANS_VIEW = `CREATE VIEW scans AS ${STORED}`
/** The same while scans of before are still being moved. */
export const SCANS_VIEW_WHILE_MOVING = `${SCANS_VIEW} UNION ALL SELECT ${COLUMNS} FROM scans_before`
