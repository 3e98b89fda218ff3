import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Uploaded files; house styles, and which one a piece is printed in. */
const STATEMENTS = [
  `CREATE TABLE files (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces (id), sum TEXT NOT NULL, name TEXT NOT NULL,
    type TEXT NOT NULL, bytes INTEGER NOT NULL, width REAL NOT NULL, height REAL NOT NULL, personId INTEGER NOT NULL, createdAt INTEGER NOT NULL,
    UNIQUE (workspaceId, sum))`,
  `CREATE INDEX files_by_sum ON files (sum)`,
  `CREATE TABLE house_styles (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces (id), clientId INTEGER REFERENCES clients (id),
    name TEXT NOT NULL, look TEXT NOT NULL, version INTEGER NOT NULL, createdAt INTEGER NOT NULL)`,
  `CREATE INDEX house_styles_of_workspace ON house_styles (workspaceId, name)`,
  `ALTER TABLE codes ADD COLUMN styleId INTEGER REFERENCES house_styles (id)`,
  `CREATE INDEX codes_by_style ON codes (styleId) WHERE styleId IS NOT NULL`,
  `CREATE TABLE proofs (
    codeId INTEGER PRIMARY KEY REFERENCES codes (id) ON DELETE CASCADE, "key" TEXT NOT NULL, readiness TEXT NOT NULL, proof TEXT NOT NULL)`,
  `UPDATE revisions SET "before" = json_set("before", '$.styleId', NULL) WHERE "of" = 'code' AND "before" IS NOT NULL`,
  `UPDATE revisions SET "after" = json_set("after", '$.styleId', NULL) WHERE "of" = 'code'`,
]

export class Print1764700000000 implements MigrationInterface {
  readonly name = 'Print1764700000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // What was uploaded would be lost.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
