import type { MigrationInterface, QueryRunner } from 'typeorm'

/** Who answered forms, with the scan that brought them. */
export class Leads1765600000000 implements MigrationInterface {
  readonly name = 'Leads1765600000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE leads (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, campaignId INTEGER NOT NULL,
      pageId INTEGER NOT NULL, pageRevisionId INTEGER NOT NULL, part TEXT NOT NULL, sendKey TEXT NOT NULL,
      at BIGINT NOT NULL, scanId INTEGER NOT NULL, codeId INTEGER NOT NULL, routeId INTEGER NOT NULL,
      revisionId INTEGER NOT NULL, language TEXT NOT NULL, country TEXT NOT NULL, region TEXT NOT NULL,
      city TEXT NOT NULL, device TEXT NOT NULL, system TEXT NOT NULL, utm TEXT NOT NULL, answers TEXT NOT NULL,
      consents TEXT NOT NULL, email TEXT NOT NULL, phone TEXT NOT NULL, day TEXT NOT NULL, visitor TEXT NOT NULL,
      title TEXT NOT NULL, search TEXT NOT NULL, tags TEXT NOT NULL, state TEXT NOT NULL, assignedTo INTEGER,
      held TEXT NOT NULL, apart TEXT NOT NULL, version INTEGER NOT NULL)`)
    await runner.query('CREATE INDEX leads_workspace ON leads (workspaceId, at)')
    await runner.query('CREATE UNIQUE INDEX leads_once ON leads (sendKey)')
    await runner.query('CREATE INDEX leads_campaign ON leads (campaignId, at)')
    await runner.query('CREATE INDEX leads_form ON leads (pageId, part, day, visitor)')
    await runner.query("CREATE INDEX leads_email ON leads (workspaceId, email) WHERE email <> ''")
    await runner.query("CREATE INDEX leads_phone ON leads (workspaceId, phone) WHERE phone <> ''")
    await runner.query(`CREATE TABLE lead_notes (
      id INTEGER PRIMARY KEY AUTOINCREMENT, leadId INTEGER NOT NULL REFERENCES leads(id) ON DELETE CASCADE,
      at BIGINT NOT NULL, personId INTEGER NOT NULL, text TEXT NOT NULL)`)
    await runner.query('CREATE INDEX lead_notes_lead ON lead_notes (leadId)')
    await runner.query(`CREATE TABLE erasures (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, at BIGINT NOT NULL, personId INTEGER,
      leads INTEGER NOT NULL, files INTEGER NOT NULL, why TEXT NOT NULL)`)
    await runner.query(`CREATE TABLE form_counts (
      pageId INTEGER NOT NULL, part TEXT NOT NULL, answers INTEGER NOT NULL, PRIMARY KEY (pageId, part))`)
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE form_counts')
    await runner.query('DROP TABLE erasures')
    await runner.query('DROP TABLE lead_notes')
    await runner.query('DROP TABLE leads')
  }
}
