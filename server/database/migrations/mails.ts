import type { MigrationInterface, QueryRunner } from 'typeorm'

/** What forms have held since they can mail; what was kept before holds nothing of it. */
const FRESH = {
  thanksPage: null,
  mails: false,
  mailSubject: {},
  mailText: {},
  replyTo: '',
  confirms: false,
  confirmText: {},
  confirmDays: null,
}

interface Kept {
  readonly id: number
  readonly content: string | null
}

/** Mails that are sent or to be sent, who is told of what, and whether the addresses of leads are confirmed. */
export class Mails1765700000000 implements MigrationInterface {
  readonly name = 'Mails1765700000000'

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE mails (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, campaignId INTEGER, leadId INTEGER,
      personId INTEGER, watchId INTEGER, kind TEXT NOT NULL, messageKey TEXT NOT NULL, payload TEXT NOT NULL,
      at BIGINT NOT NULL, outboxId INTEGER, address TEXT NOT NULL, subject TEXT NOT NULL, state TEXT NOT NULL,
      settledAt BIGINT, reply TEXT NOT NULL)`)
    await runner.query('CREATE INDEX mails_workspace ON mails (workspaceId, state, at)')
    await runner.query('CREATE INDEX mails_lead ON mails (leadId) WHERE leadId IS NOT NULL')
    await runner.query('CREATE INDEX mails_watch ON mails (watchId, at) WHERE watchId IS NOT NULL')
    await runner.query(`CREATE TABLE watches (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, personId INTEGER NOT NULL,
      "of" TEXT NOT NULL, refId INTEGER NOT NULL, what TEXT NOT NULL, every TEXT NOT NULL, n INTEGER,
      state TEXT NOT NULL, nextAt BIGINT, createdAt BIGINT NOT NULL)`)
    await runner.query('CREATE INDEX watches_of ON watches (what, "of", refId)')
    await runner.query('CREATE INDEX watches_person ON watches (personId)')
    await runner.query('CREATE INDEX watches_due ON watches (nextAt) WHERE nextAt IS NOT NULL')
    await runner.query(`CREATE TABLE notices (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL, personId INTEGER NOT NULL,
      watchId INTEGER NOT NULL, campaignId INTEGER NOT NULL, "of" TEXT NOT NULL, refId INTEGER NOT NULL,
      at BIGINT NOT NULL, sentence TEXT NOT NULL, seenAt BIGINT)`)
    await runner.query('CREATE INDEX notices_unseen ON notices (personId, id) WHERE seenAt IS NULL')
    await runner.query("ALTER TABLE leads ADD COLUMN personMark TEXT NOT NULL DEFAULT ''")
    await runner.query("CREATE INDEX leads_person ON leads (workspaceId, personMark) WHERE personMark <> ''")
    await runner.query('ALTER TABLE leads ADD COLUMN confirmBy BIGINT')
    await runner.query('ALTER TABLE leads ADD COLUMN confirmedAt BIGINT')
    await runner.query(
      "CREATE INDEX leads_new ON leads (workspaceId, campaignId, at) WHERE state = 'new' AND held = '' AND apart = ''",
    )
    await complete(runner, 'pages', 'live')
    await complete(runner, 'pages', 'draft')
    await complete(runner, 'page_revisions', 'content')
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX leads_new')
    await runner.query('ALTER TABLE leads DROP COLUMN confirmedAt')
    await runner.query('ALTER TABLE leads DROP COLUMN confirmBy')
    await runner.query('DROP INDEX leads_person')
    await runner.query('ALTER TABLE leads DROP COLUMN personMark')
    await runner.query('DROP TABLE notices')
    await runner.query('DROP TABLE watches')
    await runner.query('DROP TABLE mails')
  }
}

/** Gives every form that is kept in a column what forms hold now. */
async function complete(runner: QueryRunner, table: string, column: string): Promise<void> {
  const rows = (await runner.query(
    `SELECT id, ${column} AS content FROM ${table} WHERE ${column} LIKE '%"kind":"form"%'`,
  )) as Kept[]
  for (const { id, content } of rows) {
    const page = JSON.parse(content ?? '{}') as { parts?: { kind: string }[] }
    const parts = page.parts?.map((part) => (part.kind === 'form' ? { ...FRESH, ...part } : part))
    if (parts)
      await runner.query(`UPDATE ${table} SET ${column} = ? WHERE id = ?`, [
        JSON.stringify({ ...page, parts }),
        id,
      ])
  }
}
