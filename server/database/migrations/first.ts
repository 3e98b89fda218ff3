import type { MigrationInterface, QueryRunner } from 'typeorm'

const STATEMENTS = [
  `CREATE TABLE workspaces (id INTEGER PRIMARY KEY AUTOINCREMENT, name TEXT NOT NULL, zone TEXT NOT NULL, createdAt INTEGER NOT NULL)`,
  `CREATE TABLE people (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
    name TEXT NOT NULL, email TEXT NOT NULL UNIQUE,
    role TEXT NOT NULL CHECK (role IN ('admin', 'editor', 'viewer')),
    passwordHash TEXT NOT NULL, createdAt INTEGER NOT NULL)`,
  `CREATE TABLE sessions (
    tokenHash TEXT PRIMARY KEY, personId INTEGER NOT NULL REFERENCES people(id) ON DELETE CASCADE,
    createdAt INTEGER NOT NULL, expiresAt INTEGER NOT NULL) WITHOUT ROWID`,
  `CREATE TABLE clients (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER NOT NULL REFERENCES workspaces(id),
    name TEXT NOT NULL, createdAt INTEGER NOT NULL)`,
  `CREATE TABLE campaigns (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    workspaceId INTEGER NOT NULL REFERENCES workspaces(id), clientId INTEGER NOT NULL REFERENCES clients(id),
    name TEXT NOT NULL, zone TEXT NOT NULL, utmCampaign TEXT NOT NULL, startsOn TEXT, endsOn TEXT,
    version INTEGER NOT NULL, createdAt INTEGER NOT NULL)`,
  `CREATE INDEX campaigns_of_workspace ON campaigns (workspaceId)`,
  `CREATE TABLE routes (
    id INTEGER PRIMARY KEY AUTOINCREMENT, campaignId INTEGER NOT NULL REFERENCES campaigns(id),
    name TEXT NOT NULL, destination TEXT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('live', 'paused', 'deleted')), note TEXT NOT NULL,
    revisionId INTEGER NOT NULL, version INTEGER NOT NULL, createdAt INTEGER NOT NULL, changedAt INTEGER NOT NULL)`,
  `CREATE INDEX routes_of_campaign ON routes (campaignId)`,
  `CREATE TABLE codes (
    id INTEGER PRIMARY KEY AUTOINCREMENT, campaignId INTEGER NOT NULL REFERENCES campaigns(id),
    routeId INTEGER NOT NULL REFERENCES routes(id),
    slug TEXT NOT NULL UNIQUE CHECK (slug = upper(slug)),
    name TEXT NOT NULL, medium TEXT NOT NULL, source TEXT NOT NULL, term TEXT NOT NULL, content TEXT NOT NULL,
    level TEXT NOT NULL CHECK (level IN ('L', 'M', 'Q', 'H')), sizeMm REAL NOT NULL, place TEXT NOT NULL, note TEXT NOT NULL,
    state TEXT NOT NULL CHECK (state IN ('live', 'paused', 'deleted')),
    version INTEGER NOT NULL, createdAt INTEGER NOT NULL)`,
  `CREATE INDEX codes_of_campaign ON codes (campaignId)`,
  `CREATE INDEX codes_of_route ON codes (routeId)`,
  // "of" names what was changed; a revision outlives nothing, because routes and codes are never removed.
  `CREATE TABLE revisions (
    id INTEGER PRIMARY KEY AUTOINCREMENT, "of" TEXT NOT NULL CHECK ("of" IN ('route', 'code')), subjectId INTEGER NOT NULL,
    number INTEGER NOT NULL, at INTEGER NOT NULL, personId INTEGER NOT NULL REFERENCES people(id),
    "before" TEXT, "after" TEXT NOT NULL, UNIQUE ("of", subjectId, number))`,

  // What scans have in common is kept once: a scan row is small, and grouping compares whole numbers.
  `CREATE TABLE places (
    id INTEGER PRIMARY KEY, country TEXT NOT NULL, region TEXT NOT NULL, city TEXT NOT NULL, latitude REAL, longitude REAL)`,
  `CREATE UNIQUE INDEX places_once ON places (country, region, city, ifnull(latitude, 999), ifnull(longitude, 999))`,
  `CREATE TABLE agents (
    id INTEGER PRIMARY KEY, device TEXT NOT NULL, system TEXT NOT NULL, systemVersion TEXT NOT NULL, browser TEXT NOT NULL,
    UNIQUE (device, system, systemVersion, browser))`,
  `CREATE TABLE scans (
    id INTEGER PRIMARY KEY, at INTEGER NOT NULL, codeId INTEGER NOT NULL, routeId INTEGER NOT NULL, revisionId INTEGER NOT NULL,
    outcome TEXT NOT NULL, apart TEXT, isUnique INTEGER NOT NULL,
    placeId INTEGER NOT NULL, agentId INTEGER NOT NULL, language TEXT NOT NULL, referrer TEXT NOT NULL, visitor TEXT NOT NULL)`,
  // Figures are answered from this index alone; only counted scans are in it.
  `CREATE INDEX scans_counted ON scans (codeId, at, isUnique) WHERE apart IS NULL`,
  `CREATE INDEX scans_apart ON scans (codeId, at, apart) WHERE apart IS NOT NULL`,

  // A day's salt and who was already seen that day; both are destroyed when the day is over.
  `CREATE TABLE salts (workspaceId INTEGER NOT NULL, day TEXT NOT NULL, salt TEXT NOT NULL, PRIMARY KEY (workspaceId, day)) WITHOUT ROWID`,
  `CREATE TABLE visits (
    workspaceId INTEGER NOT NULL, day TEXT NOT NULL, codeId INTEGER NOT NULL, visitor TEXT NOT NULL,
    PRIMARY KEY (workspaceId, day, codeId, visitor)) WITHOUT ROWID`,
]

export class First1764000000000 implements MigrationInterface {
  readonly name = 'First1764000000000'

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of STATEMENTS) await runner.query(statement)
  }

  async down(runner: QueryRunner): Promise<void> {
    const tables = [
      'visits',
      'salts',
      'scans',
      'agents',
      'places',
      'revisions',
      'codes',
      'routes',
      'campaigns',
      'clients',
      'sessions',
      'people',
      'workspaces',
    ]
    for (const table of tables) await runner.query(`DROP TABLE ${table}`)
  }
}
