import Sqlite from 'better-sqlite3'
import { prepareWriter } from '@flimbo/server/sqlite'

const TABLES = ['routes', 'revisions', 'codes', 'short_links'] as const

/**
 * Inserts the very rows an import made once more, by nothing but prepared statements of the driver in one
 * durable transaction, into tables of the same shape and indexes in a file of its own. @returns milliseconds
 */
export function bareInserts(file: string, campaignId: number): number {
  const source = new Sqlite(file, { readonly: true })
  const codes = 'SELECT id FROM codes WHERE campaignId = ?'
  const routes = 'SELECT id FROM routes WHERE campaignId = ?'
  const rows = {
    routes: source.prepare('SELECT * FROM routes WHERE campaignId = ?').raw().all(campaignId),
    revisions: source
      .prepare(
        `SELECT * FROM revisions WHERE "of" = 'code' AND subjectId IN (${codes}) OR "of" = 'route' AND subjectId IN (${routes})`,
      )
      .raw()
      .all(campaignId, campaignId),
    codes: source.prepare('SELECT * FROM codes WHERE campaignId = ?').raw().all(campaignId),
    short_links: source.prepare(`SELECT * FROM short_links WHERE codeId IN (${codes})`).raw().all(campaignId),
  } as Record<(typeof TABLES)[number], unknown[][]>
  const schema = source
    .prepare(
      "SELECT sql FROM sqlite_master WHERE tbl_name IN ('routes', 'revisions', 'codes', 'short_links') AND sql IS NOT NULL ORDER BY type DESC",
    )
    .pluck()
    .all() as string[]
  source.close()

  const target = new Sqlite(`${file}.bare-${String(campaignId)}`)
  prepareWriter(target)
  target.pragma('foreign_keys = OFF')
  for (const statement of schema) target.exec(statement)
  const began = performance.now()
  target.transaction(() => {
    for (const table of TABLES) {
      const insert = target.prepare(
        `INSERT INTO ${table} VALUES (${rows[table][0]?.map(() => '?').join(', ') ?? ''})`,
      )
      for (const row of rows[table]) insert.run(...row)
    }
  })()
  const took = performance.now() - began
  target.close()
  return took
}
