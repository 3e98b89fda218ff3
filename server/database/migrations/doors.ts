import { dayIn, startOfDay } from '@flimbo/core/time'
import type { MigrationInterface, QueryRunner } from 'typeorm'
import type { Life, Rules } from '@flimbo/core/routing'

const LET_THROUGH =
  "(apart IS NULL OR apart = 'onward') AND exit NOT IN ('', 'before', 'after', 'full', 'full-today')"
const WITH_LIFE = "json_type(%, '$.rules.life') = 'object'"

/**
 * What several front doors share: how many scans each limited route let through, who took a place already, and
 * what takes an unfinished large write back. Hosts may be claimed by many workspaces and proven by one.
 */
const STATEMENTS = [
  `CREATE TABLE limits (
    routeId INTEGER PRIMARY KEY REFERENCES routes(id), countedFrom INTEGER NOT NULL, zone TEXT NOT NULL,
    maxTotal INTEGER, maxDaily INTEGER, total INTEGER NOT NULL, day TEXT NOT NULL, today INTEGER NOT NULL)`,
  // A mark is a visitor of the day, or one visit that was asked something first; each takes one place.
  `CREATE TABLE taken (
    workspaceId INTEGER NOT NULL, day TEXT NOT NULL, routeId INTEGER NOT NULL, mark TEXT NOT NULL,
    PRIMARY KEY (workspaceId, day, routeId, mark)) WITHOUT ROWID`,
  // Whether a check followed the destination of the piece itself, or that of its route.
  `ALTER TABLE checks ADD COLUMN own INTEGER NOT NULL DEFAULT 0`,
  `CREATE TABLE undo_log (id INTEGER PRIMARY KEY AUTOINCREMENT, statement TEXT NOT NULL)`,

  `UPDATE routes SET rules = json_set(rules, '$.life.once', json('false')) WHERE json_type(rules, '$.life') = 'object'`,
  `UPDATE routes SET draft = json_set(draft, '$.rules.life.once', json('false')) WHERE draft IS NOT NULL AND ${WITH_LIFE.replace('%', 'draft')}`,
  ...['"before"', '"after"'].map(
    (side) => `UPDATE revisions SET ${side} = json_set(${side}, '$.rules.life.once', json('false'))
    WHERE "of" = 'route' AND ${WITH_LIFE.replace('%', side)}`,
  ),
]

/** Rebuilt as SQLite's documentation of ALTER TABLE describes, section 7: other tables refer to this one by its name. */
const DOMAINS = [
  `CREATE TABLE claimed_domains (
    id INTEGER PRIMARY KEY AUTOINCREMENT, workspaceId INTEGER REFERENCES workspaces(id),
    host TEXT NOT NULL, state TEXT NOT NULL CHECK (state IN ('waiting', 'ready', 'removed')),
    token TEXT NOT NULL, home TEXT NOT NULL, unknown TEXT NOT NULL, unknownText TEXT NOT NULL,
    checkedAt INTEGER, finding TEXT NOT NULL, version INTEGER NOT NULL, createdAt INTEGER NOT NULL,
    UNIQUE (workspaceId, host))`,
  `INSERT INTO claimed_domains SELECT * FROM domains`,
  `DROP TABLE domains`,
  `ALTER TABLE claimed_domains RENAME TO domains`,
  `CREATE UNIQUE INDEX domains_proven ON domains (host) WHERE state = 'ready'`,
]

/** Days beyond what the calendar now takes, in columns and in what is kept as JSON. */
const DAY_COLUMNS = { campaigns: ['startsOn', 'endsOn'], codes: ['liveOn', 'downOn'] } as const
const JSON_COLUMNS = {
  routes: ['rules', 'draft', 'expectations'],
  lane_sets: ['lanes'],
  revisions: ['"before"', '"after"'],
} as const
const MOMENT = /"(\d{4})(-\d\d-\d\dT\d\d:\d\d)"/g

/** Brings years into 1970 to 2200; a leap day of a year that has none becomes the day before. */
function withinCalendar(json: string): string {
  return json.replace(MOMENT, (_all, year: string, rest: string) => {
    const near = Math.min(2200, Math.max(1970, Number(year)))
    return `"${String(near)}${near === Number(year) ? rest : rest.replace('-02-29T', '-02-28T')}"`
  })
}

async function clampDays(runner: QueryRunner): Promise<void> {
  for (const [table, columns] of Object.entries(DAY_COLUMNS)) {
    for (const column of columns) {
      await runner.query(
        `UPDATE ${table} SET ${column} = max('1970-01-01', min('2200-12-31', ${column})) WHERE ${column} IS NOT NULL`,
      )
    }
  }
  for (const [table, columns] of Object.entries(JSON_COLUMNS)) {
    for (const column of columns) {
      const rows = (await runner.query(
        `SELECT id, ${column} AS json FROM ${table} WHERE ${column} IS NOT NULL`,
      )) as { id: number; json: string }[]
      for (const { id, json } of rows) {
        const next = withinCalendar(json)
        if (next !== json) await runner.query(`UPDATE ${table} SET ${column} = ? WHERE id = ?`, [next, id])
      }
    }
  }
}

interface Limited {
  id: number
  rules: string
}

/** Counts, once, what the limited routes of an older installation have let through. */
async function countLimited(runner: QueryRunner, now: number): Promise<void> {
  const routes =
    (await runner.query(`SELECT id, rules FROM routes WHERE json_extract(rules, '$.life.limit') IS NOT NULL
    OR json_extract(rules, '$.life.daily') IS NOT NULL`)) as Limited[]
  const count = async (routeId: number, from: number) => {
    const [found] = (await runner.query(
      `SELECT count(*) AS scans FROM scans WHERE routeId = ? AND at >= ? AND ${LET_THROUGH}`,
      [routeId, from],
    )) as { scans: number }[]
    return found?.scans ?? 0
  }
  for (const { id, rules } of routes) {
    const { life } = JSON.parse(rules) as Rules & { life: Life }
    const day = dayIn(life.zone, now)
    const total = await count(id, life.countedFrom)
    const today = await count(id, startOfDay(life.zone, day))
    await runner.query('INSERT INTO limits VALUES (?, ?, ?, ?, ?, ?, ?, ?)', [
      id,
      life.countedFrom,
      life.zone,
      life.limit,
      life.daily,
      total,
      day,
      today,
    ])
  }
}

export class Doors1764500000000 implements MigrationInterface {
  readonly name = 'Doors1764500000000'
  /** Foreign keys can only be switched outside of a transaction, so this migration begins its own. */
  readonly transaction = false

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('PRAGMA foreign_keys = OFF')
    await runner.query('BEGIN IMMEDIATE')
    try {
      for (const statement of [...STATEMENTS, ...DOMAINS]) await runner.query(statement)
      await clampDays(runner)
      await countLimited(runner, Date.now())
      const broken = (await runner.query('PRAGMA foreign_key_check')) as unknown[]
      if (broken.length > 0)
        throw new Error('The database refers to rows that do not exist; restore a backup.')
      await runner.query('COMMIT')
    } catch (error) {
      await runner.query('ROLLBACK').catch(() => undefined)
      throw error
    } finally {
      await runner.query('PRAGMA foreign_keys = ON')
    }
  }

  down(): Promise<void> {
    // Limits would be counted anew from nothing.
    return Promise.reject(
      new Error('This migration cannot be taken back: restore the backup made before it.'),
    )
  }
}
