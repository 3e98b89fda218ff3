import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Static codes leave the house for print as well. A table whose rows never change is made anew, with the same rows. */
const STATEMENTS = [
  `CREATE TABLE releases_anew (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces (id), campaignId INTEGER NOT NULL,
    codeId INTEGER REFERENCES codes (id), staticCodeId INTEGER REFERENCES static_codes (id),
    jobId INTEGER NOT NULL, number INTEGER NOT NULL, at INTEGER NOT NULL, personId INTEGER NOT NULL,
    name TEXT NOT NULL, text TEXT NOT NULL, domainId INTEGER NOT NULL, slug TEXT NOT NULL, link TEXT NOT NULL, level TEXT NOT NULL, sizeMm REAL NOT NULL,
    styleName TEXT NOT NULL, look TEXT NOT NULL, placement TEXT, printRun INTEGER, printer TEXT NOT NULL, note TEXT NOT NULL, proof TEXT NOT NULL, files TEXT NOT NULL,
    CHECK ((codeId IS NULL) <> (staticCodeId IS NULL)),
    UNIQUE (codeId, number), UNIQUE (jobId, codeId), UNIQUE (staticCodeId, number), UNIQUE (jobId, staticCodeId))`,
  `INSERT INTO releases_anew (id, workspaceId, campaignId, codeId, jobId, number, at, personId, name, text, domainId, slug, link, level, sizeMm,
    styleName, look, placement, printRun, printer, note, proof, files)
   SELECT id, workspaceId, campaignId, codeId, jobId, number, at, personId, name, text, domainId, slug, link, level, sizeMm,
    styleName, look, placement, printRun, printer, note, proof, files FROM releases`,
  `DROP TABLE releases`,
  `ALTER TABLE releases_anew RENAME TO releases`,
  `CREATE INDEX releases_of_workspace ON releases (workspaceId, codeId)`,
  `CREATE TRIGGER releases_stay BEFORE UPDATE ON releases BEGIN SELECT RAISE(ABORT, 'A release is never altered'); END`,
  `CREATE TRIGGER releases_are_kept BEFORE DELETE ON releases BEGIN SELECT RAISE(ABORT, 'A release is never deleted'); END`,
]

export class StaticReleases1765100000000 implements MigrationInterface {
  readonly name = 'StaticReleases1765100000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // What was released of static codes would be lost.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
