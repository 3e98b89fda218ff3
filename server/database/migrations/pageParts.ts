import { randomBytes } from 'node:crypto'
import type { MigrationInterface, QueryRunner } from 'typeorm'

interface PageOfBefore {
  id: number
  campaignId: number
  name: string
  title: string
  text: string
  links: string
  version: number
  createdAt: number
  changedAt: number
  zone: string
  personId: number
}

const EVERYBODY = { kind: 'all', of: [] }
/** Nobody had said in which language a page is. */
const LANGUAGE = 'en'

/** What a page of a heading, a text and links showed, as parts. */
function contentOf({ title, text, links, zone }: PageOfBefore) {
  const words = (value: string) => (value === '' ? {} : { [LANGUAGE]: value })
  const part = (kind: string, id: string) => ({ id, kind, isHidden: false, condition: EVERYBODY })
  const paragraphs = text
    .split(/\n{2,}/)
    .map((each) => each.trim())
    .filter((each) => each !== '')
    .map((each) => ({ kind: 'paragraph', runs: [{ text: each }] }))
  return {
    languages: [LANGUAGE],
    zone,
    title: words(title),
    description: {},
    picture: {},
    isFileItself: false,
    styleId: null,
    parts: [
      { ...part('heading', 'p1'), text: words(title), size: 'title' },
      ...(paragraphs.length === 0 ? [] : [{ ...part('text', 'p2'), text: { [LANGUAGE]: paragraphs } }]),
      ...(JSON.parse(links) as { label: string; address: string }[]).map(({ label, address }, i) => ({
        ...part('link', `p${String(i + 3)}`),
        label: words(label),
        note: {},
        address,
      })),
    ],
  }
}

/** Pages become lists of parts with drafts, revisions and styles; files get a public key, and pictures the widths they are shown in. */
export class PageParts1765400000000 implements MigrationInterface {
  readonly name = 'PageParts1765400000000'

  async up(runner: QueryRunner): Promise<void> {
    const rows = (await runner.query(
      `SELECT p.*, c.zone, (SELECT min(id) FROM people w WHERE w.workspaceId = c.workspaceId) AS personId
       FROM pages p JOIN campaigns c ON c.id = p.campaignId`,
    )) as PageOfBefore[]
    await runner.query('DROP TABLE pages')
    await runner.query(`CREATE TABLE pages (
      id INTEGER PRIMARY KEY AUTOINCREMENT, campaignId INTEGER NOT NULL REFERENCES campaigns(id), name TEXT NOT NULL,
      title TEXT NOT NULL, summary TEXT NOT NULL, maps TEXT NOT NULL DEFAULT '{}', live TEXT, revisionId INTEGER NOT NULL, draft TEXT, draftVersion INTEGER NOT NULL,
      version INTEGER NOT NULL, createdAt INTEGER NOT NULL, changedAt INTEGER NOT NULL)`)
    await runner.query('CREATE INDEX pages_of_campaign ON pages (campaignId)')
    await runner.query(`CREATE TABLE page_revisions (
      id INTEGER PRIMARY KEY AUTOINCREMENT, pageId INTEGER NOT NULL, number INTEGER NOT NULL, at INTEGER NOT NULL,
      personId INTEGER NOT NULL REFERENCES people(id), content TEXT NOT NULL, UNIQUE (pageId, number))`)
    for (const row of rows) {
      const content = contentOf(row)
      const { parts, languages } = content
      await runner.query('INSERT INTO page_revisions VALUES (?, ?, 1, ?, ?, ?)', [
        row.id,
        row.id,
        row.changedAt,
        row.personId,
        JSON.stringify(content),
      ])
      await runner.query(`INSERT INTO pages VALUES (?, ?, ?, ?, ?, '{}', ?, ?, NULL, 0, ?, ?, ?)`, [
        row.id,
        row.campaignId,
        row.name,
        row.title,
        JSON.stringify({ parts: parts.length, languages, styles: [], files: [] }),
        JSON.stringify(content),
        row.id,
        row.version,
        row.createdAt,
        row.changedAt,
      ])
    }
    await runner.query(`CREATE TABLE page_styles (
      id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
      clientId INTEGER REFERENCES clients(id), name TEXT NOT NULL, style TEXT NOT NULL, isDefault INTEGER NOT NULL DEFAULT 0,
      version INTEGER NOT NULL, createdAt INTEGER NOT NULL)`)
    await runner.query('CREATE INDEX page_styles_of_workspace ON page_styles (workspaceId)')
    await runner.query(`ALTER TABLE files ADD COLUMN key TEXT NOT NULL DEFAULT ''`)
    await runner.query(`ALTER TABLE files ADD COLUMN widths TEXT NOT NULL DEFAULT '[]'`)
    for (const { id } of (await runner.query('SELECT id FROM files')) as { id: number }[])
      await runner.query('UPDATE files SET key = ? WHERE id = ?', [
        randomBytes(16).toString('base64url').slice(0, 21),
        id,
      ])
    await runner.query('CREATE UNIQUE INDEX files_by_key ON files (key)')
  }

  /** What a page showed beside its title is not brought back. */
  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX files_by_key')
    await runner.query('ALTER TABLE files DROP COLUMN widths')
    await runner.query('ALTER TABLE files DROP COLUMN key')
    await runner.query('DROP TABLE page_styles')
    const rows = (await runner.query('SELECT id, campaignId, name, title FROM pages')) as PageOfBefore[]
    await runner.query('DROP TABLE page_revisions')
    await runner.query('DROP TABLE pages')
    await runner.query(`CREATE TABLE pages (
      id INTEGER PRIMARY KEY AUTOINCREMENT, campaignId INTEGER NOT NULL REFERENCES campaigns(id), name TEXT NOT NULL,
      title TEXT NOT NULL, text TEXT NOT NULL, links TEXT NOT NULL, version INTEGER NOT NULL, createdAt INTEGER NOT NULL, changedAt INTEGER NOT NULL)`)
    for (const { id, campaignId, name, title } of rows)
      await runner.query(`INSERT INTO pages VALUES (?, ?, ?, ?, '', '[]', 1, 0, 0)`, [
        id,
        campaignId,
        name,
        title,
      ])
  }
}
