import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Reports, the links to them, and when they are mailed. */
export class Reports1766100000000 implements MigrationInterface {
  readonly name = 'Reports1766100000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE reports (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
      clientId INTEGER REFERENCES clients(id) ON DELETE CASCADE,
      campaignId INTEGER REFERENCES campaigns(id) ON DELETE CASCADE,
      name TEXT NOT NULL, content TEXT NOT NULL, version INTEGER NOT NULL, personId INTEGER NOT NULL,
      createdAt BIGINT NOT NULL, changedAt BIGINT NOT NULL)`)
    await runner.query('CREATE INDEX reports_workspace ON reports (workspaceId, name)')
    await runner.query(`CREATE TABLE report_links (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
      reportId INTEGER NOT NULL REFERENCES reports(id) ON DELETE CASCADE, until TEXT NOT NULL, endsAt BIGINT NOT NULL,
      passwordHash TEXT NOT NULL, personId INTEGER NOT NULL, createdAt BIGINT NOT NULL, opened INTEGER NOT NULL,
      openedAt BIGINT)`)
    await runner.query('CREATE INDEX report_links_report ON report_links (reportId)')
    await runner.query(`CREATE TABLE report_mailings (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
      reportId INTEGER NOT NULL REFERENCES reports(id) ON DELETE CASCADE, settings TEXT NOT NULL,
      personId INTEGER NOT NULL, nextAt BIGINT, sentAt BIGINT, fault TEXT NOT NULL, createdAt BIGINT NOT NULL)`)
    await runner.query('CREATE INDEX report_mailings_report ON report_mailings (reportId)')
    await runner.query('CREATE INDEX report_mailings_due ON report_mailings (nextAt)')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE report_mailings')
    await runner.query('DROP TABLE report_links')
    await runner.query('DROP TABLE reports')
  }
}
