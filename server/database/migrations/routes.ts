import type { MigrationInterface, QueryRunner } from 'typeorm'

/** What routes need beyond a destination: rules, what is being prepared, a password; and which exit each scan took. */
const STATEMENTS = [
  `ALTER TABLE routes ADD COLUMN rules TEXT NOT NULL DEFAULT '{"lanes":[],"language":"","life":null,"shared":null,"askLocation":null}'`,
  `ALTER TABLE routes ADD COLUMN passwordHash TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE routes ADD COLUMN draft TEXT`,
  `ALTER TABLE routes ADD COLUMN draftVersion INTEGER NOT NULL DEFAULT 0`,
  `ALTER TABLE routes ADD COLUMN expectations TEXT NOT NULL DEFAULT '[]'`,
  `ALTER TABLE codes ADD COLUMN otherwise TEXT NOT NULL DEFAULT ''`,
  `CREATE TABLE lane_sets (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id), name TEXT NOT NULL, lanes TEXT NOT NULL,
    version INTEGER NOT NULL, createdAt INTEGER NOT NULL, changedAt INTEGER NOT NULL)`,
  // Until now every redirected scan took the one way there was.
  `ALTER TABLE scans ADD COLUMN exit TEXT NOT NULL DEFAULT 'otherwise'`,
  `ALTER TABLE scans ADD COLUMN variant TEXT NOT NULL DEFAULT ''`,
  `UPDATE scans SET exit = '' WHERE outcome <> 'redirect'`,
  `CREATE INDEX scans_by_exit ON scans (routeId, at, exit, variant, isUnique, apart)`,
]

export class Routes1764200000000 implements MigrationInterface {
  readonly name = 'Routes1764200000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // Lanes would be lost, and with them where printed codes lead.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
