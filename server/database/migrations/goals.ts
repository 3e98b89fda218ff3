import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Goals on sites, what reached them, and the pages that were looked at after a scan. */
export class Goals1765900000000 implements MigrationInterface {
  readonly name = 'Goals1765900000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE campaigns ADD COLUMN referenceHours INTEGER NOT NULL DEFAULT 0')
    await runner.query(`CREATE TABLE goals (
      id INTEGER PRIMARY KEY AUTOINCREMENT, campaignId INTEGER NOT NULL REFERENCES campaigns(id), name TEXT NOT NULL,
      kind TEXT NOT NULL, "key" TEXT NOT NULL, pattern TEXT NOT NULL, selector TEXT NOT NULL, value REAL,
      counts TEXT NOT NULL, signedOnly INTEGER NOT NULL, isOn INTEGER NOT NULL, version INTEGER NOT NULL,
      createdAt BIGINT NOT NULL, UNIQUE (campaignId, "key"))`)
    // Arrivals on a site are of goal 0.
    await runner.query(`CREATE TABLE goal_events (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, at BIGINT NOT NULL, goalId INTEGER NOT NULL,
      codeId INTEGER NOT NULL, scanId INTEGER NOT NULL, routeId INTEGER NOT NULL, country TEXT NOT NULL,
      region TEXT NOT NULL, city TEXT NOT NULL, device TEXT NOT NULL, system TEXT NOT NULL, valueMilli BIGINT NOT NULL,
      orderName TEXT NOT NULL, once TEXT NOT NULL, apart TEXT NOT NULL, UNIQUE (goalId, once))`)
    await runner.query('CREATE INDEX goal_events_workspace ON goal_events (workspaceId, at)')
    await runner.query(
      "CREATE UNIQUE INDEX goal_events_order ON goal_events (goalId, orderName) WHERE orderName <> ''",
    )
    await runner.query(`CREATE TABLE site_views (
      scanId INTEGER NOT NULL, view TEXT NOT NULL, workspaceId INTEGER NOT NULL, at BIGINT NOT NULL,
      codeId INTEGER NOT NULL, page TEXT NOT NULL, seconds INTEGER NOT NULL, apart TEXT NOT NULL,
      PRIMARY KEY (scanId, view)) WITHOUT ROWID`)
    await runner.query('CREATE INDEX site_views_workspace ON site_views (workspaceId, at)')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE site_views')
    await runner.query('DROP TABLE goal_events')
    await runner.query('DROP TABLE goals')
    await runner.query('ALTER TABLE campaigns DROP COLUMN referenceHours')
  }
}
