import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Questions to the figures that were saved, and what people note on a day. */
export class Results1765800000000 implements MigrationInterface {
  readonly name = 'Results1765800000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE questions (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
      name TEXT NOT NULL, value TEXT NOT NULL, personId INTEGER NOT NULL, at BIGINT NOT NULL, UNIQUE (workspaceId, name))`)
    await runner.query(`CREATE TABLE day_notes (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
      campaignId INTEGER, day TEXT NOT NULL, text TEXT NOT NULL, personId INTEGER NOT NULL, at BIGINT NOT NULL)`)
    await runner.query('CREATE INDEX day_notes_workspace ON day_notes (workspaceId, day)')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE day_notes')
    await runner.query('DROP TABLE questions')
  }
}
