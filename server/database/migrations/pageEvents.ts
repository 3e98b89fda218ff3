import type { MigrationInterface, QueryRunner } from 'typeorm'

/** What happens on pages: each thing once for each scan that was shown one. */
export class PageEvents1765500000000 implements MigrationInterface {
  readonly name = 'PageEvents1765500000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE event_ways (
      id INTEGER PRIMARY KEY, routeId INTEGER NOT NULL, revisionId INTEGER NOT NULL, pageId INTEGER NOT NULL,
      kind TEXT NOT NULL, part TEXT NOT NULL, item TEXT NOT NULL, apart TEXT NOT NULL,
      UNIQUE (pageId, routeId, revisionId, kind, part, item, apart))`)
    await runner.query(`CREATE TABLE event_rows (
      id INTEGER PRIMARY KEY AUTOINCREMENT, at INTEGER NOT NULL, codeId INTEGER NOT NULL, scanId INTEGER NOT NULL,
      wayId INTEGER NOT NULL)`)
    await runner.query('CREATE UNIQUE INDEX events_once ON event_rows (scanId, wayId)')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE event_rows')
    await runner.query('DROP TABLE event_ways')
  }
}
