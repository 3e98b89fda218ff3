import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Work that takes longer than an answer; and the outbox, of which hits that are still to be sent become the first entries. */
const STATEMENTS = [
  `CREATE TABLE jobs (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, personId INTEGER, campaignId INTEGER, kind TEXT NOT NULL,
    title TEXT NOT NULL, payload TEXT NOT NULL, state TEXT NOT NULL, done INTEGER NOT NULL, total INTEGER NOT NULL,
    sentence TEXT NOT NULL, attempts INTEGER NOT NULL, nextAt INTEGER, createdAt INTEGER NOT NULL, touchedAt INTEGER NOT NULL,
    endedAt INTEGER, fileName TEXT, fileType TEXT, fileBytes INTEGER)`,
  `CREATE INDEX jobs_by_state ON jobs (state, nextAt)`,
  `CREATE INDEX jobs_of_workspace ON jobs (workspaceId, id)`,
  `CREATE TABLE outbox (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, kind TEXT NOT NULL, topic TEXT NOT NULL, at INTEGER NOT NULL,
    isTest INTEGER NOT NULL, payload TEXT NOT NULL, attempts INTEGER NOT NULL DEFAULT 0, nextAt INTEGER, fault TEXT NOT NULL DEFAULT '')`,
  `CREATE INDEX outbox_due ON outbox (kind, workspaceId, topic, nextAt, id)`,
  `INSERT INTO outbox (id, workspaceId, kind, topic, at, isTest, payload, attempts, nextAt, fault)
    SELECT id, workspaceId, 'hit', tagId, at, isTest, visit, attempts, nextAt, fault FROM hits`,
  `DROP TABLE hits`,
]

export class Jobs1764600000000 implements MigrationInterface {
  readonly name = 'Jobs1764600000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // Jobs that have not ended yet would be lost.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
