import Sqlite from 'better-sqlite3'
import { SLUG_SIGNS, slugOf } from '@flimbo/core/codes'
import { NO_RULES, type Rules } from '@flimbo/core/routing'
import { openDatabase } from '@flimbo/server/database'
import { setUpWorkspace } from '@flimbo/server/workspace'

/** A database with many codes, ten to a route; `rulesOf` says which rules the route of a code has. @returns their slugs */
export async function fillCodes(
  file: string,
  count: number,
  rulesOf: (code: number) => Rules = () => NO_RULES,
): Promise<string[]> {
  const database = await openDatabase(file)
  await setUpWorkspace(database, {
    workspace: 'Bench',
    zone: 'Europe/Berlin',
    name: 'Bench',
    email: 'bench@saltmarsh.example',
    password: 'bench bench bench',
  })
  await database.close()
  const connection = new Sqlite(file)
  const now = Date.now()
  const slugs: string[] = []
  connection.transaction(() => {
    connection
      .prepare(
        "INSERT INTO campaigns (id, workspaceId, clientId, name, zone, utmCampaign, version, createdAt) VALUES (1, 1, 1, 'Bench', 'Europe/Berlin', 'bench', 1, ?)",
      )
      .run(now)
    const route = connection.prepare(
      "INSERT INTO routes (id, campaignId, name, destination, state, note, revisionId, version, createdAt, changedAt, rules) VALUES (?, 1, ?, ?, 'live', '', ?, 1, ?, ?, ?)",
    )
    const code =
      connection.prepare(`INSERT INTO codes (id, campaignId, routeId, domainId, slug, name, medium, source, term, content, extra, level, sizeMm, place, reference, key, note, state, version, createdAt)
      VALUES (?, 1, ?, 1, ?, ?, 'print', 'bench', '', ?, '{}', 'M', 30, '', '', '', '', 'live', 1, ?)`)
    const link = connection.prepare('INSERT INTO short_links VALUES (1, ?, ?, ?)')
    for (let i = 0; i < count; i++) {
      const routeId = Math.floor(i / 10) + 1
      if (i % 10 === 0)
        route.run(
          routeId,
          `Route ${String(routeId)}`,
          `https://saltmarsh.example/page/${String(routeId)}?lang=de#today`,
          routeId,
          now,
          now,
          JSON.stringify(rulesOf(i)),
        )
      const base = SLUG_SIGNS.length
      const slug = slugOf([
        5,
        Math.floor(i / base ** 3) % base,
        Math.floor(i / base ** 2) % base,
        Math.floor(i / base) % base,
        i % base,
      ])
      slugs.push(slug)
      code.run(i + 1, routeId, slug, `Piece ${String(i)}`, `piece-${String(i)}`, now)
      link.run(slug, i + 1, now)
    }
  })()
  connection.close()
  return slugs
}
