import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { emptyContent, newPart, pageContent } from '@flimbo/core/pages'
import { migrate, openDatabase, tables } from '../index.ts'

let directory: string
let file: string
beforeEach(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-mails-'))
  file = join(directory, 'flimbo.sqlite')
  await migrate(file)
})
afterEach(() => {
  rmSync(directory, { recursive: true, force: true })
})

/** What forms hold only since they can mail. */
const FRESH = [
  'thanksPage',
  'mails',
  'mailSubject',
  'mailText',
  'replyTo',
  'confirms',
  'confirmText',
  'confirmDays',
]

describe('forms of before they could mail', () => {
  it('hold after the migration what forms hold, wherever they are kept, and mail nobody', async () => {
    const form = Object.fromEntries(
      Object.entries(newPart('form', 'f')).filter(([name]) => !FRESH.includes(name)),
    )
    const content = {
      ...emptyContent('en', 'UTC'),
      title: { en: 'P' },
      parts: [newPart('divider', 'd'), form],
    }
    const database = new Sqlite(file)
    // As it was before the last migration.
    database.exec(`DROP TABLE notices; DROP TABLE watches; DROP TABLE mails; DROP INDEX leads_new; DROP INDEX leads_person;
      ALTER TABLE leads DROP COLUMN confirmedAt; ALTER TABLE leads DROP COLUMN confirmBy;
      ALTER TABLE leads DROP COLUMN personMark;
      DELETE FROM migrations WHERE name = 'Mails1765700000000';
      INSERT INTO workspaces (id, name, zone, createdAt) VALUES (1, 'W', 'UTC', 0);
      INSERT INTO clients VALUES (1, 1, 'C', 0, NULL);
      INSERT INTO people (id, workspaceId, name, email, role, passwordHash, createdAt) VALUES (1, 1, 'A', 'a@a.example', 'admin', '', 0);
      INSERT INTO campaigns (id, workspaceId, clientId, name, zone, utmCampaign, version, createdAt)
        VALUES (1, 1, 1, 'A', 'UTC', 'a', 1, 0);`)
    const text = JSON.stringify(content)
    database
      .prepare(
        `INSERT INTO pages (campaignId, name, title, summary, live, revisionId, draft, draftVersion, version, createdAt, changedAt)
         VALUES (1, 'P', 'P', '{"parts":2,"languages":["en"],"styles":[],"files":[]}', ?, 1, ?, 1, 1, 0, 0)`,
      )
      .run(text, text)
    database
      .prepare('INSERT INTO page_revisions (pageId, number, at, personId, content) VALUES (1, 1, 0, 1, ?)')
      .run(text)
    database.close()

    await migrate(file)
    const opened = await openDatabase(file)
    const page = await opened.read.findOneByOrFail(tables.pages, { id: 1 })
    const revision = await opened.read.findOneByOrFail(tables.pageRevisions, { id: 1 })
    for (const kept of [page.live, page.draft, revision.content]) {
      expect(pageContent.parse(kept)).toEqual(kept)
      expect(kept?.parts[1]).toEqual(newPart('form', 'f'))
    }
    await opened.close()
  })
})
