import type { MigrationInterface, QueryRunner } from 'typeorm'

export class Pages1764400000000 implements MigrationInterface {
  readonly name = 'Pages1764400000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE pages (
      id INTEGER PRIMARY KEY AUTOINCREMENT, campaignId INTEGER NOT NULL REFERENCES campaigns(id), name TEXT NOT NULL,
      title TEXT NOT NULL, text TEXT NOT NULL, links TEXT NOT NULL, version INTEGER NOT NULL, createdAt INTEGER NOT NULL, changedAt INTEGER NOT NULL)`)
    await runner.query('CREATE INDEX pages_of_campaign ON pages (campaignId)')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE pages')
  }
}
