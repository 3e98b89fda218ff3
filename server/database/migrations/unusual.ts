import type { MigrationInterface, QueryRunner } from 'typeorm'

/** What was unusual, each once. */
export class Unusual1766000000000 implements MigrationInterface {
  readonly name = 'Unusual1766000000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE unusual (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
      campaignId INTEGER NOT NULL, codeId INTEGER NOT NULL, kind TEXT NOT NULL, day TEXT NOT NULL, "key" TEXT NOT NULL,
      counted INTEGER NOT NULL, expected REAL NOT NULL, at BIGINT NOT NULL, seenAt BIGINT,
      UNIQUE (campaignId, codeId, kind, day, "key"))`)
    await runner.query('CREATE INDEX unusual_workspace ON unusual (workspaceId, at)')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE unusual')
  }
}
