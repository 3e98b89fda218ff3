import { createHash, randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import Sqlite from 'better-sqlite3'
import type { Campaign } from '@flimbo/core/campaigns'
import { isActive, type Job } from '@flimbo/core/jobs'
import type { Code, NewCode } from '@flimbo/core/codes'
import type { Problem } from '@flimbo/core/api'
import { EVERY_SCAN } from '@flimbo/core/conditions'
import { emptyContent, type Page, type PageContent, type Part } from '@flimbo/core/pages'
import { NO_RULES, type Rules, type WholeRoute } from '@flimbo/core/routing'
import { readConfig } from '../config/index.ts'
import { http, OWNER, type Answer } from './http.ts'
import { startInOneProcess } from './inOneProcess.ts'
import { PHONE } from './phones.ts'

export { http, OWNER, PHONE }
export type { Answer }

export const DOOR = 'http://go.saltmarsh.example'
/** Addresses the city database puts in these cities, as the stand-ins' list says. */
export const BREMEN = '2.59.32.77'
export const GRONINGEN = '31.132.200.77'

/** A whole Flimbo on a database of its own, and somebody at its office. */
export async function runningFlimbo(settings: Record<string, string> = {}) {
  const dataDir = mkdtempSync(join(tmpdir(), 'flimbo-test-'))
  const config = readConfig({
    FLIMBO_OFFICE_PORT: '0',
    FLIMBO_DOOR_PORT: '0',
    FLIMBO_STANDIN_PORT: '0',
    FLIMBO_DNS_STANDIN_PORT: '0',
    FLIMBO_SMTP_STANDIN_PORT: '0',
    FLIMBO_CHECK_HOUR: 'off',
    FLIMBO_DATA_DIR: dataDir,
    FLIMBO_DOOR_URL: DOOR,
    FLIMBO_TRUST_PROXY: 'loopback',
    FLIMBO_STANDINS: 'on',
    FLIMBO_LOG_LEVEL: 'silent',
    ...settings,
  })
  const flimbo = await startInOneProcess(config, join(dataDir, 'no-web'))
  let cookie = ''

  /** Somebody else, signed in: of this workspace, or of one of their own. */
  function person(role: 'admin' | 'editor' | 'viewer', where: 'here' | 'elsewhere' = 'here') {
    const database = new Sqlite(config.databaseFile)
    const token = randomBytes(16).toString('hex')
    try {
      const at = Date.now()
      const workspaceId =
        where === 'here'
          ? 1
          : Number(
              database
                .prepare("INSERT INTO workspaces (name, zone, createdAt) VALUES ('Elsewhere', 'UTC', ?)")
                .run(at).lastInsertRowid,
            )
      if (where === 'elsewhere')
        database
          .prepare("INSERT INTO clients (workspaceId, name, createdAt) VALUES (?, 'Elsewhere', ?)")
          .run(workspaceId, at)
      const { lastInsertRowid } = database
        .prepare(
          "INSERT INTO people (workspaceId, name, email, role, passwordHash, createdAt) VALUES (?, 'P', ?, ?, '', ?)",
        )
        .run(workspaceId, `${token}@saltmarsh.example`, role, at)
      database
        .prepare('INSERT INTO sessions VALUES (?, ?, ?, ?)')
        .run(createHash('sha256').update(token).digest('hex'), lastInsertRowid, at, at + 3_600_000)
    } finally {
      database.close()
    }
    const theirs = { cookie: `flimbo_session=${token}` }
    const asked = <T>(method: string, path: string, body?: unknown) =>
      http(
        method,
        flimbo.ports.office,
        path,
        theirs,
        body === undefined ? undefined : JSON.stringify(body),
      ) as Promise<Answer<T>>
    return Object.assign(asked, theirs)
  }

  async function ask<T>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const isSentAsItIs = body === undefined || typeof body === 'string' || body instanceof Uint8Array
    const sent = isSentAsItIs ? body : JSON.stringify(body)
    const answer = await http(
      method,
      flimbo.ports.office,
      path,
      { ...(cookie ? { cookie } : {}), ...headers },
      sent,
    )
    const [set] = answer.headers['set-cookie'] ?? []
    if (set) cookie = set.split(';', 1)[0] ?? ''
    return answer as Answer<T>
  }

  const pathOf = (id: number, rest = '') => `/api/routes/${String(id)}${rest}`
  const route = async (id: number) => (await ask<WholeRoute>('GET', pathOf(id))).body
  const draft = async (id: number, rules: Rules) => {
    const { draftVersion, destination } = await route(id)
    return ask<WholeRoute>('PATCH', pathOf(id, '/draft'), { draftVersion, destination, rules })
  }
  const publish = async (id: number) => {
    const { version, draftVersion } = await route(id)
    return ask<WholeRoute>('POST', pathOf(id, '/publish'), { version, draftVersion })
  }

  return {
    config,
    ports: flimbo.ports,
    file: config.databaseFile,
    ask,
    person,
    /** Asks and expects to be refused. */
    async refused(
      method: string,
      path: string,
      body?: unknown,
      headers?: Record<string, string>,
    ): Promise<Problem> {
      const answer = await ask<Problem>(method, path, body, headers)
      if (answer.status < 400) throw new Error(`${method} ${path} was not refused: ${String(answer.status)}`)
      if (!answer.headers['content-type']?.startsWith('application/problem+json'))
        throw new Error(`No problem details: ${String(answer.headers['content-type'])}`)
      return answer.body
    },
    async setUp() {
      const answer = await ask('POST', '/api/owner', OWNER)
      if (answer.status !== 201) throw new Error(`Set-up answered ${String(answer.status)}`)
    },
    async campaign(name = 'Summer timetable', utmCampaign = 'summer-26'): Promise<Campaign> {
      return (await ask<Campaign>('POST', '/api/campaigns', { name, utmCampaign, zone: 'Europe/Berlin' }))
        .body
    },
    async code(campaignId: number, given: Partial<NewCode> = {}): Promise<Code> {
      const destination =
        given.routeId === undefined
          ? { destination: 'https://saltmarsh.example/timetable?lang=de#today' }
          : {}
      const answer = await ask<Code>('POST', '/api/codes', {
        campaignId,
        name: 'Pier poster, east gate',
        medium: 'print',
        source: 'pier-poster',
        ...destination,
        ...given,
      })
      if (answer.status !== 201) throw new Error(JSON.stringify(answer.body))
      return answer.body
    },
    /** A page with these parts, published. */
    async page(
      campaignId: number,
      name: string,
      parts: readonly Part[],
      more: Partial<PageContent> = {},
    ): Promise<Page> {
      const made = await ask<Page>('POST', '/api/pages', { campaignId, name })
      const content = {
        ...emptyContent('en', 'Europe/Berlin'),
        title: { en: name },
        ...more,
        parts: [...parts],
      }
      const { id, draftVersion } = made.body
      const saved = await ask<Page>('PATCH', `/api/pages/${String(id)}/draft`, { draftVersion, content })
      const live = await ask<Page>('POST', `/api/pages/${String(id)}/publish`, {
        draftVersion: saved.body.draftVersion,
      })
      if (live.status !== 200) throw new Error(JSON.stringify(live.body))
      return live.body
    },
    /** A code whose every scan is shown a page. */
    async codeTo(campaignId: number, pageId: number, slug: string): Promise<Code> {
      const code = await this.code(campaignId, { slug })
      await this.live(code.routeId, {
        ...NO_RULES,
        lanes: [
          { id: 'page', name: '', condition: EVERY_SCAN, outcome: { kind: 'page', pageId }, resting: false },
        ],
      })
      return code
    },
    route,
    draft,
    publish,
    /** A job, once it has ended. */
    async ended(id: number): Promise<Job> {
      for (;;) {
        const { body } = await ask<Job>('GET', `/api/jobs/${String(id)}`)
        if (!isActive(body)) return body
        await new Promise((resolve) => setTimeout(resolve, 20))
      }
    },
    /** Prepares rules for a route and publishes them. */
    async live(id: number, rules: Rules): Promise<WholeRoute> {
      const prepared = await draft(id, rules)
      const published = prepared.status === 200 ? await publish(id) : prepared
      if (published.status !== 200) throw new Error(JSON.stringify(published.body))
      return published.body
    },
    /** The port of each front door. */
    doorPorts: flimbo.doorPorts,
    scan: (
      path: string,
      headers: Record<string, string> = {},
      method = 'GET',
      port = flimbo.ports.door,
      body?: string,
    ) =>
      http(
        method,
        port,
        path,
        {
          'user-agent': PHONE,
          'accept-language': 'de-DE,de;q=0.9',
          'x-forwarded-for': BREMEN,
          ...headers,
        },
        body,
      ),
    /** Rows straight out of the file, past everything Flimbo says of itself. */
    rows<T>(sql: string, ...values: unknown[]): T[] {
      const database = new Sqlite(config.databaseFile, { readonly: true })
      try {
        return database.prepare(sql).all(...values) as T[]
      } finally {
        database.close()
      }
    },
    forgetCookie() {
      cookie = ''
    },
    get cookie() {
      return cookie
    },
    /** Ends it and leaves its data where they are. */
    stop: () => flimbo.close(),
    async close() {
      await flimbo.close()
      rmSync(dataDir, { recursive: true, force: true })
    },
  }
}
export type Running = Awaited<ReturnType<typeof runningFlimbo>>
