import type { MigrationInterface, QueryRunner } from 'typeorm'

/** What left the house for print. */
const STATEMENTS = [
  `CREATE TABLE releases (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces (id), campaignId INTEGER NOT NULL,
    codeId INTEGER NOT NULL REFERENCES codes (id), jobId INTEGER NOT NULL, number INTEGER NOT NULL, at INTEGER NOT NULL, personId INTEGER NOT NULL,
    name TEXT NOT NULL, text TEXT NOT NULL, domainId INTEGER NOT NULL, slug TEXT NOT NULL, link TEXT NOT NULL, level TEXT NOT NULL, sizeMm REAL NOT NULL,
    styleName TEXT NOT NULL, look TEXT NOT NULL, printRun INTEGER, printer TEXT NOT NULL, note TEXT NOT NULL, proof TEXT NOT NULL, files TEXT NOT NULL,
    UNIQUE (codeId, number), UNIQUE (jobId, codeId))`,
  `CREATE INDEX releases_of_workspace ON releases (workspaceId, codeId)`,
  // A release is never altered, by whatever writes to the table.
  `CREATE TRIGGER releases_stay BEFORE UPDATE ON releases BEGIN SELECT RAISE(ABORT, 'A release is never altered'); END`,
  `CREATE TRIGGER releases_are_kept BEFORE DELETE ON releases BEGIN SELECT RAISE(ABORT, 'A release is never deleted'); END`,
]

export class Releases1764800000000 implements MigrationInterface {
  readonly name = 'Releases1764800000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // What was released would be lost.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
