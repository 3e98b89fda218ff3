import type { MigrationInterface, QueryRunner } from 'typeorm'

const CODE_COLUMNS = `id, campaignId, routeId, slug, name, medium, source, term, content, level, sizeMm, place, note, state, version, createdAt`

/**
 * What the plan needs: pieces with everything a media plan says of them, short links that belong to a
 * domain and outlive a renaming, settings, saved views, and what came of destination checks.
 */
const STATEMENTS = [
  // The domain with an empty host is the front door's own address, which the configuration names.
  `CREATE TABLE domains (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER REFERENCES workspaces(id),
    host TEXT NOT NULL UNIQUE, state TEXT NOT NULL CHECK (state IN ('waiting', 'ready', 'removed')),
    token TEXT NOT NULL, home TEXT NOT NULL, unknown TEXT NOT NULL, unknownText TEXT NOT NULL,
    checkedAt INTEGER, finding TEXT NOT NULL, version INTEGER NOT NULL, createdAt INTEGER NOT NULL)`,
  `INSERT INTO domains VALUES (1, NULL, '', 'ready', '', '', '', '', NULL, '', 1, 0)`,

  `ALTER TABLE workspaces ADD COLUMN domainId INTEGER NOT NULL DEFAULT 1`,
  `ALTER TABLE clients ADD COLUMN domainId INTEGER`,
  `ALTER TABLE campaigns ADD COLUMN domainId INTEGER`,
  `ALTER TABLE campaigns ADD COLUMN pinned INTEGER NOT NULL DEFAULT 0`,
  `ALTER TABLE campaigns ADD COLUMN archivedAt INTEGER`,

  `CREATE TABLE planned (
    id INTEGER PRIMARY KEY AUTOINCREMENT, campaignId INTEGER NOT NULL REFERENCES campaigns(id),
    routeId INTEGER NOT NULL REFERENCES routes(id), domainId INTEGER NOT NULL REFERENCES domains(id),
    slug TEXT NOT NULL CHECK (slug = upper(slug)),
    name TEXT NOT NULL, medium TEXT NOT NULL, source TEXT NOT NULL, term TEXT NOT NULL, content TEXT NOT NULL, extra TEXT NOT NULL,
    level TEXT NOT NULL CHECK (level IN ('L', 'M', 'Q', 'H')), sizeMm REAL NOT NULL, viewingM REAL,
    place TEXT NOT NULL, latitude REAL, longitude REAL, printRun INTEGER, cost REAL, liveOn TEXT, downOn TEXT,
    reference TEXT NOT NULL, key TEXT NOT NULL, note TEXT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('live', 'paused', 'deleted')), archivedAt INTEGER,
    version INTEGER NOT NULL, createdAt INTEGER NOT NULL)`,
  `INSERT INTO planned (${CODE_COLUMNS}, domainId, extra, reference, key) SELECT ${CODE_COLUMNS}, 1, '{}', '', '' FROM codes`,
  `DROP TABLE codes`,
  `ALTER TABLE planned RENAME TO codes`,
  `CREATE INDEX codes_of_campaign ON codes (campaignId, createdAt)`,
  `CREATE INDEX codes_of_route ON codes (routeId)`,
  `CREATE UNIQUE INDEX codes_by_key ON codes (campaignId, key) WHERE key <> ''`,

  // Every short link that was ever issued, those of renamed codes too: what is printed stays taken.
  `CREATE TABLE short_links (
    domainId INTEGER NOT NULL REFERENCES domains(id), slug TEXT NOT NULL CHECK (slug = upper(slug)),
    codeId INTEGER NOT NULL REFERENCES codes(id), since INTEGER NOT NULL, PRIMARY KEY (domainId, slug)) WITHOUT ROWID`,
  `INSERT INTO short_links SELECT domainId, slug, id, createdAt FROM codes`,
  `CREATE INDEX short_links_of_code ON short_links (codeId)`,

  `CREATE TABLE settings (
    workspaceId INTEGER NOT NULL REFERENCES workspaces(id), section TEXT NOT NULL, value TEXT NOT NULL, version INTEGER NOT NULL,
    PRIMARY KEY (workspaceId, section)) WITHOUT ROWID`,
  `CREATE TABLE preferences (
    personId INTEGER NOT NULL REFERENCES people(id) ON DELETE CASCADE, name TEXT NOT NULL, value TEXT NOT NULL,
    PRIMARY KEY (personId, name)) WITHOUT ROWID`,
  `CREATE TABLE views (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
    name TEXT NOT NULL, value TEXT NOT NULL, UNIQUE (workspaceId, name))`,
  `CREATE TABLE checks (
    id INTEGER PRIMARY KEY AUTOINCREMENT, routeId INTEGER NOT NULL REFERENCES routes(id), codeId INTEGER REFERENCES codes(id),
    address TEXT NOT NULL, at INTEGER NOT NULL, ms INTEGER NOT NULL, verdict TEXT NOT NULL, status INTEGER,
    hops TEXT NOT NULL, lost TEXT NOT NULL, failingSince INTEGER)`,
  `CREATE INDEX checks_of_route ON checks (routeId, id)`,
  `CREATE INDEX checks_of_code ON checks (codeId, id)`,
]

export class Plan1764100000000 implements MigrationInterface {
  readonly name = 'Plan1764100000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  down(): Promise<void> {
    // Short links on other domains and old slugs would have no place in the older shape.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
