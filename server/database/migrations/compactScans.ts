import type { MigrationInterface, QueryRunner } from 'typeorm'
import { packedVisitor, SCANS_VIEW, SCANS_VIEW_WHILE_MOVING } from '../../sqlite/index.ts'

/**
 * A scan takes a third of the room: what scans have in common is kept once, and no index stands beside them, since
 * figures and lists are answered from segments. Scans that are there stay where they are, as `scans_before`, and are
 * moved by and by while everything runs; the view `scans` reads both.
 */
const TABLES = [
  `CREATE TABLE ways (
    id INTEGER PRIMARY KEY, routeId INTEGER NOT NULL, revisionId INTEGER NOT NULL, outcome TEXT NOT NULL, apart TEXT,
    exit TEXT NOT NULL, variant TEXT NOT NULL)`,
  `CREATE UNIQUE INDEX ways_once ON ways (routeId, revisionId, outcome, exit, variant, ifnull(apart, ''))`,
  // Languages and referrers.
  `CREATE TABLE words (id INTEGER PRIMARY KEY, text TEXT NOT NULL UNIQUE)`,
  `INSERT INTO words (id, text) VALUES (0, '')`,
  `CREATE TABLE scan_rows (
    id INTEGER PRIMARY KEY, at INTEGER NOT NULL, codeId INTEGER NOT NULL, wayId INTEGER NOT NULL, isUnique INTEGER NOT NULL,
    placeId INTEGER NOT NULL, agentId INTEGER NOT NULL, languageId INTEGER NOT NULL, referrerId INTEGER NOT NULL,
    visitor BLOB NOT NULL)`,
  // Codes that were ever asked for: what is printed of them may still be out there.
  `CREATE TABLE scanned_codes (codeId INTEGER PRIMARY KEY)`,
]

export class CompactScans1765200000000 implements MigrationInterface {
  readonly name = 'CompactScans1765200000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of TABLES) await runner.query(statement)
    const [newest] = (await runner.query('SELECT id FROM scans ORDER BY id DESC LIMIT 1')) as { id: number }[]
    if (!newest) {
      await runner.query('DROP TABLE scans')
      await runner.query(SCANS_VIEW)
      return
    }
    await runner.query(`INSERT INTO scanned_codes SELECT id FROM codes c
      WHERE EXISTS (SELECT 1 FROM scans WHERE codeId = c.id AND apart IS NULL)
        OR EXISTS (SELECT 1 FROM scans WHERE codeId = c.id AND apart IS NOT NULL)`)
    await runner.query('ALTER TABLE scans RENAME TO scans_before')
    // The newest of all stands where new ones go, so that numbers go on from it.
    await runner.query(
      `INSERT INTO ways (routeId, revisionId, outcome, apart, exit, variant)
      SELECT routeId, revisionId, outcome, apart, exit, variant FROM scans_before WHERE id = ?`,
      [newest.id],
    )
    await runner.query(
      `INSERT OR IGNORE INTO words (text) SELECT language FROM scans_before WHERE id = ?
      UNION SELECT referrer FROM scans_before WHERE id = ?`,
      [newest.id, newest.id],
    )
    await runner.query(
      `INSERT INTO scan_rows SELECT s.id, s.at, s.codeId, (SELECT id FROM ways), s.isUnique, s.placeId, s.agentId,
        (SELECT id FROM words WHERE text = s.language), (SELECT id FROM words WHERE text = s.referrer),
        ${packedVisitor('s.visitor')} FROM scans_before s WHERE id = ?`,
      [newest.id],
    )
    await runner.query('DELETE FROM scans_before WHERE id = ?', [newest.id])
    await runner.query(SCANS_VIEW_WHILE_MOVING)
  }

  down(): Promise<void> {
    // It would take as long as two years of scans take to be written again.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
