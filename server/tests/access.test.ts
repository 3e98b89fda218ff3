import { request } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Endpoint, Thing } from '@flimbo/core/api'
import type { Campaign } from '@flimbo/core/campaigns'
import { everyEndpoint } from '@flimbo/core/contracts'
import type { StoredFile } from '@flimbo/core/files'
import { PLAIN_STYLE, readTeam } from '@flimbo/core/pages'
import { DEFAULT_VIEW } from '@flimbo/core/results'
import { PLAIN_LOOK } from '@flimbo/core/symbol'
import { hasRight, ROLES, type Role } from '@flimbo/core/workspace'
import { storeLead } from './leadSample.ts'
import { runningFlimbo, type Running } from './running.ts'

let flimbo: Running
const GULL =
  '<svg xmlns="http://www.w3.org/2000/svg" width="4" height="4"><circle cx="2" cy="2" r="2"/></svg>'
const IMPORT = { campaignId: 1, pageId: 1, part: 'f', codeId: 1, lines: [{ line: 2, at: '', sent: [] }] }
const GOAL = {
  ...{ name: 'Pass', kind: 'sent', key: 'pass', pattern: '', selector: '', value: null },
  ...{ counts: 'scan', signedOnly: false, isOn: true },
}
const SUMMARY = { what: 'summary', every: 'week', n: null }
const MAILING = { every: 'week', zone: 'UTC', to: ['bo@gull.example'] }
const FIGURES = { from: '2026-07-01', to: '2026-07-01', questions: [{}] }
const saving = (of: object) => ({ name: 'A', value: { ...of, view: DEFAULT_VIEW } })
const VIEW = { columns: [], sort: 'name', order: 'asc', group: '', filter: {} }
/** What stands in the workspace, by kind; and the client of another workspace, which has nothing else. */
let ours: Record<Thing, number | string>
let cookies: Record<Role | 'elsewhere', string>

beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  const made = async (path: string, body: unknown) =>
    (await flimbo.ask<{ id: number }>('POST', path, body)).body.id
  const { id: campaign, clientId: client }: Campaign = await flimbo.campaign()
  const { id: code, routeId: route } = await flimbo.code(campaign)
  ours = {
    campaign,
    client,
    code,
    route,
    page: await made('/api/pages', { campaignId: campaign, name: 'Menu' }),
    pageStyle: await made('/api/page-styles', { name: 'Paper', style: PLAIN_STYLE }),
    mail: await made('/api/mail/tests', {}),
    watch: await made('/api/watches', { campaignId: campaign, ...SUMMARY }),
    laneSet: await made('/api/lane-sets', { name: 'Boats', lanes: [] }),
    view: await made('/api/views', { name: 'Mine', value: VIEW }),
    question: await made('/api/questions', { name: 'Mine', value: { view: DEFAULT_VIEW } }),
    dayNote: await made('/api/day-notes', { campaignId: campaign, day: '2026-07-01', text: 'Storm' }),
    job: await made('/api/check-runs', {}),
    domain: await made('/api/domains', { host: 'go.pier.example' }),
    houseStyle: await made('/api/house-styles', { name: 'Navy', look: PLAIN_LOOK }),
    release: 0,
    goal: await made('/api/goals', { campaignId: campaign, value: GOAL }),
    report: await made('/api/reports', { name: 'Monthly', campaignId: campaign }),
    reportLink: 0,
    reportMailing: 0,
    lead: storeLead(flimbo.file, { campaignId: campaign, codeId: code, routeId: route }),
    staticCode: await made('/api/static-codes', { ...FIXED, campaignId: campaign }),
    file: (await flimbo.ask<StoredFile>('POST', '/api/files?name=gull.svg', Buffer.from(GULL))).body.sum,
  }
  const report = `/api/reports/${String(ours.report)}`
  ours.reportLink = await made(`${report}/links`, { until: '2099-01-01' })
  ours.reportMailing = await made(`${report}/mailings`, MAILING)
  const released = await made('/api/releases', { ...RELEASE, filter: { campaignId: campaign } })
  await flimbo.ended(released)
  ours.release = flimbo.rows<{ id: number }>('SELECT id FROM releases')[0]?.id ?? 0
  const signedIn = (role: Role, where: 'here' | 'elsewhere' = 'here') => flimbo.person(role, where).cookie
  cookies = {
    viewer: signedIn('viewer'),
    editor: signedIn('editor'),
    admin: signedIn('admin'),
    elsewhere: signedIn('admin', 'elsewhere'),
  }
})
afterAll(() => flimbo.close())

/** The status an address answers with; what follows it is not waited for. */
function statusOf(
  { method }: Endpoint,
  path: string,
  cookie: string | null,
  body?: unknown,
): Promise<number> {
  return new Promise((resolve, reject) => {
    const sent = body === undefined ? undefined : JSON.stringify(body)
    const asking = request(
      {
        host: '127.0.0.1',
        port: flimbo.ports.office,
        path,
        method,
        headers: {
          ...(cookie === null ? {} : { cookie }),
          ...(sent === undefined
            ? {}
            : { 'content-type': 'application/json', 'content-length': String(Buffer.byteLength(sent)) }),
        },
      },
      (response) => {
        resolve(response.statusCode ?? 0)
        response.destroy()
      },
    )
    asking.on('error', reject)
    asking.end(sent)
  })
}

/** Every place of an endpoint's input where the id of a thing stands. */
function placesOf({ access }: Endpoint): { thing: Thing; place: string }[] {
  if (access === 'anybody') return []
  return Object.entries(access.things ?? {}).flatMap(([thing, places]) =>
    [places].flat().map((place) => ({ thing: thing as Thing, place })),
  )
}

/** An address with our own ids in it. */
function addressOf(endpoint: Endpoint): string {
  const places = placesOf(endpoint)
  const own = places.find(({ place }) => place.startsWith('params.'))
  const path = endpoint.path.replace(/:(\w+)/g, (_all, name: string) =>
    own?.place === `params.${name}` ? String(ours[own.thing]) : 'ABC',
  )
  const asked = places.find(({ place }) => place.startsWith('query.'))
  return `/api${path}${asked ? `?${asked.place.slice(6)}=${String(ours[asked.thing])}` : ''}`
}

const CELLS = { name: 'Poster', medium: 'print', source: 'pier' }
const FIXED = { name: 'Guests', content: { kind: 'text', text: 'Moin' } }
const PRINTED = {
  level: 'M',
  sizeMm: 30,
  viewingM: null,
  place: '',
  printRun: null,
  reference: '',
  note: '',
}
const RELEASE = { finishes: [{ format: 'svg' }], printer: '', note: '' }
const WHITE = { rgb: '#ffffff', cmyk: null }
const withLogo = (file: number | string) => ({
  ...PLAIN_LOOK,
  logo: { file, share: 0.2, margin: 1, plate: 'none', plateTint: WHITE, cleared: true },
})
const placedOn = (file: number | string) => ({ file, widthMm: 100, xMm: 50, yMm: 50, turnDeg: 0 })
const onPicture = (file: number | string) => ({ ...PLAIN_LOOK, ground: { kind: 'picture', file } })
const TEAM = {
  members: readTeam('given name\nAnna').members,
  language: 'en',
  medium: 'print',
  source: 'crew',
  destination: 'https://a.example',
}
/** A report with one thing in it, by where that stands. */
const REPORTING: Readonly<Record<string, (id: number | string) => object>> = {
  clientId: (clientId) => ({ clientId }),
  campaignId: (campaignId) => ({ campaignId }),
  styleId: (styleId) => ({ styleId }),
  'blocks.value.clientId': (clientId) => asking({ clientId }),
  'blocks.value.campaignId': (campaignId) => asking({ campaignId }),
  'blocks.value.routeId': (routeId) => asking({ routeId }),
  'blocks.value.codeId': (codeId) => asking({ codeId }),
  'blocks.value.view.otherCampaignId': (otherCampaignId) => asking({}, { otherCampaignId }),
}
const asking = (of: object, view: object = {}) => ({
  blocks: [{ kind: 'question', key: 'a', value: { ...of, view: { ...DEFAULT_VIEW, ...view } } }],
})
const reporting = (endpoint: string, body: string, whole: (content: object) => unknown) =>
  Object.fromEntries(
    Object.entries(REPORTING).map(([place, content]) => [
      `${endpoint} ${body}.${place}`,
      (id: number | string) => whole({ name: 'A', ...content(id) }),
    ]),
  )
/** A body that is whole but for one thing in it that is not the caller's, by endpoint and place. */
const BODIES: Readonly<Record<string, (id: number | string) => unknown>> = {
  ...reporting('POST /reports', 'body', (content) => content),
  ...reporting('POST /report-pages', 'body', (content) => content),
  ...reporting('PATCH /reports/:id', 'body.content', (content) => ({ version: 1, content })),
  'POST /campaigns body.clientId': (clientId) => ({ name: 'A', utmCampaign: 'a', zone: 'UTC', clientId }),
  'POST /routes body.campaignId': (campaignId) => ({
    campaignId,
    name: 'A',
    destination: 'https://a.example',
  }),
  'POST /goals body.campaignId': (campaignId) => ({ campaignId, value: GOAL }),
  'POST /figures body.otherCampaignId': (id) => ({
    ...{ ...FIGURES, campaignId: id, against: 'campaign', otherCampaignId: id },
  }),
  'POST /teams body.campaignId': (campaignId) => ({ ...TEAM, campaignId }),
  'POST /page-files body.campaignId': (campaignId) => ({ campaignId, key: 'A'.repeat(21) }),
  'POST /pages body.campaignId': (campaignId) => ({ campaignId, name: 'A' }),
  'POST /page-styles body.clientId': (clientId) => ({ name: 'A', style: PLAIN_STYLE, clientId }),
  'PATCH /page-styles/:id body.clientId': (clientId) => ({ version: 1, clientId }),
  'POST /codes/changes body.matching.campaignId': (campaignId) => ({
    matching: { campaignId },
    set: { note: '' },
  }),
  'POST /codes/changes body.matching.routeId': (routeId) => ({ matching: { routeId }, set: { note: '' } }),
  'POST /codes/changes body.changes.id': (id) => ({ changes: [{ id, set: { note: '' } }] }),
  'POST /codes/moves body.campaignId': (campaignId) => ({ ids: [ours.code], campaignId, routeId: null }),
  'POST /codes/moves body.ids': (id) => ({ ids: [id], campaignId: ours.campaign, routeId: null }),
  'POST /codes/copies body.ids': (id) => ({ ids: [id] }),
  'POST /codes/series body.piece.campaignId': (campaignId) => ({
    piece: { ...CELLS, campaignId, destination: 'https://a.example' },
    numbers: { from: 1, to: 2, digits: 1 },
  }),
  'POST /codes body.campaignId': (campaignId) => ({ ...CELLS, campaignId, destination: 'https://a.example' }),
  'POST /plan-files body.filter.campaignId': (campaignId) => ({ what: 'plan.csv', filter: { campaignId } }),
  'POST /plan-files body.filter.routeId': (routeId) => ({ what: 'plan.csv', filter: { routeId } }),
  'POST /print-files body.filter.campaignId': (campaignId) => ({ filter: { campaignId } }),
  'POST /print-files body.filter.routeId': (routeId) => ({ filter: { routeId } }),
  'POST /print-files body.ids': (id) => ({ filter: { campaignId: ours.campaign }, ids: [id] }),
  'POST /print-files body.staticIds': (id) => ({ filter: { campaignId: ours.campaign }, staticIds: [id] }),
  'POST /proof-runs body.filter.campaignId': (campaignId) => ({ filter: { campaignId } }),
  'POST /proof-runs body.filter.routeId': (routeId) => ({ filter: { routeId } }),
  'POST /proof-runs body.ids': (id) => ({ filter: { campaignId: ours.campaign }, ids: [id] }),
  'POST /proof-runs body.staticIds': (id) => ({ filter: { campaignId: ours.campaign }, staticIds: [id] }),
  'POST /releases body.filter.campaignId': (campaignId) => ({ ...RELEASE, filter: { campaignId } }),
  'POST /releases body.filter.routeId': (routeId) => ({ ...RELEASE, filter: { routeId } }),
  'POST /releases body.ids': (id) => ({ ...RELEASE, filter: { campaignId: ours.campaign }, ids: [id] }),
  'POST /releases body.staticIds': (id) => ({
    ...RELEASE,
    filter: { campaignId: ours.campaign },
    staticIds: [id],
  }),
  'POST /sheet-files body.filter.campaignId': (campaignId) => ({
    what: 'proof-sheet',
    filter: { campaignId },
  }),
  'POST /sheet-files body.filter.routeId': (routeId) => ({ what: 'proof-sheet', filter: { routeId } }),
  'POST /sheet-files body.ids': (id) => ({
    what: 'proof-sheet',
    filter: { campaignId: ours.campaign },
    ids: [id],
  }),
  'POST /sheet-files body.staticIds': (id) => ({
    what: 'proof-sheet',
    filter: { campaignId: ours.campaign },
    staticIds: [id],
  }),
  'POST /static-codes body.campaignId': (campaignId) => ({ ...FIXED, campaignId }),
  'POST /static-codes body.styleId': (styleId) => ({ ...FIXED, campaignId: ours.campaign, styleId }),
  'PATCH /static-codes/:id body.styleId': (styleId) => ({ ...FIXED, ...PRINTED, version: 1, styleId }),
  'POST /scan-files body.clientId': (clientId) => ({ clientId }),
  'POST /figures body.clientId': (clientId) => ({ ...FIGURES, clientId }),
  'POST /figures body.campaignId': (campaignId) => ({ ...FIGURES, campaignId }),
  'POST /figures body.routeId': (routeId) => ({ ...FIGURES, routeId }),
  'POST /figures body.codeId': (codeId) => ({ ...FIGURES, codeId }),
  'POST /questions body.value.clientId': (clientId) => saving({ clientId }),
  'POST /questions body.value.campaignId': (campaignId) => saving({ campaignId }),
  'POST /questions body.value.routeId': (routeId) => saving({ routeId }),
  'POST /questions body.value.codeId': (codeId) => saving({ codeId }),
  'POST /day-notes body.campaignId': (campaignId) => ({ campaignId, day: '2026-07-01', text: 'Storm' }),
  'POST /scan-files body.campaignId': (campaignId) => ({ campaignId }),
  'POST /scan-files body.routeId': (routeId) => ({ routeId }),
  'POST /scan-files body.codeId': (codeId) => ({ codeId }),
  'POST /lead-files body.campaignId': (campaignId) => ({ campaignId }),
  'POST /lead-files body.pageId': (pageId) => ({ pageId }),
  'POST /lead-files body.codeId': (codeId) => ({ codeId }),
  'POST /lead-changes body.ids': (id) => ({ ids: [id], set: { state: 'open' } }),
  'POST /page-event-files body.campaignId': (campaignId) => ({ campaignId }),
  'POST /page-event-files body.routeId': (routeId) => ({ routeId }),
  'POST /page-event-files body.codeId': (codeId) => ({ codeId }),
  'POST /page-event-files body.pageId': (pageId) => ({ pageId }),
  'POST /codes body.styleId': (styleId) => ({
    ...CELLS,
    campaignId: ours.campaign,
    destination: 'https://a.example',
    styleId,
  }),
  'PATCH /codes/:id body.styleId': (styleId) => ({ version: 1, styleId }),
  'POST /codes/series body.piece.styleId': (styleId) => ({
    piece: { ...CELLS, campaignId: ours.campaign, destination: 'https://a.example', styleId },
    numbers: { from: 1, to: 2, digits: 1 },
  }),
  'POST /codes/changes body.changes.set.styleId': (styleId) => ({
    changes: [{ id: ours.code, set: { styleId } }],
  }),
  'POST /codes/changes body.set.styleId': (styleId) => ({
    matching: { campaignId: ours.campaign },
    set: { styleId },
  }),
  'POST /codes body.placement.file': (file) => ({
    ...CELLS,
    campaignId: ours.campaign,
    destination: 'https://a.example',
    placement: placedOn(file),
  }),
  'PATCH /codes/:id body.placement.file': (file) => ({ version: 1, placement: placedOn(file) }),
  'POST /codes/series body.piece.placement.file': (file) => ({
    piece: {
      ...CELLS,
      campaignId: ours.campaign,
      destination: 'https://a.example',
      placement: placedOn(file),
    },
    numbers: { from: 1, to: 2, digits: 1 },
  }),
  'POST /codes/changes body.changes.set.placement.file': (file) => ({
    changes: [{ id: ours.code, set: { placement: placedOn(file) } }],
  }),
  'POST /codes/changes body.set.placement.file': (file) => ({
    matching: { campaignId: ours.campaign },
    set: { placement: placedOn(file) },
  }),
  'POST /house-styles body.clientId': (clientId) => ({ name: 'A', look: PLAIN_LOOK, clientId }),
  'POST /house-styles body.look.logo.file': (file) => ({ name: 'A', look: withLogo(file) }),
  'POST /house-styles body.look.ground.file': (file) => ({ name: 'A', look: onPicture(file) }),
  'PATCH /house-styles/:id body.clientId': (clientId) => ({ version: 1, clientId }),
  'PATCH /house-styles/:id body.look.logo.file': (file) => ({ version: 1, look: withLogo(file) }),
  'PATCH /house-styles/:id body.look.ground.file': (file) => ({ version: 1, look: onPicture(file) }),
  'POST /lead-imports body.campaignId': (campaignId) => ({ ...IMPORT, campaignId }),
  'POST /lead-imports body.pageId': (pageId) => ({ ...IMPORT, pageId }),
  'POST /lead-imports body.codeId': (codeId) => ({ ...IMPORT, codeId }),
  'POST /watches body.campaignId': (campaignId) => ({ campaignId, ...SUMMARY }),
  'POST /watches body.routeId': (routeId) => ({ routeId, ...SUMMARY }),
  'POST /watches body.codeId': (codeId) => ({ codeId, ...SUMMARY }),
  'POST /check-runs body.campaignId': (campaignId) => ({ campaignId }),
}
/** What else an address must say to be understood. */
const QUERIES: Readonly<Record<string, string>> = {
  'GET /results': 'from=2026-07-01&to=2026-07-01',
  'GET /goal-events': 'from=2026-07-01&to=2026-07-01',
  'GET /site-pages': 'from=2026-07-01&to=2026-07-01',
  'GET /expected': 'from=2026-07-01&to=2026-07-01',
  'GET /code-groups': 'by=medium',
  'GET /lead-numbers': 'campaignId=1&pageId=1&part=f',
  'POST /imports': 'name=plan.csv',
  'DELETE /domains/:id': 'links=0',
  'DELETE /pages/:id/draft': 'draftVersion=1',
  'POST /files/:sum/replace': 'name=a',
}
const NOBODYS = 999_999
const NOBODYS_FILE = 'f'.repeat(64)
const nameOf = ({ method, path }: Endpoint) => `${method} ${path}`
const named = everyEndpoint.map((endpoint) => [nameOf(endpoint), endpoint] as const)

describe('somebody of another workspace', () => {
  it.each(
    named.flatMap(([name, endpoint]) =>
      placesOf(endpoint).map(({ thing, place }) => [name, place, thing, endpoint] as const),
    ),
  )('finds nothing of ours at %s by its %s', async (name, place, thing, endpoint) => {
    const { elsewhere, admin } = cookies
    if (!place.startsWith('body.')) {
      const path = `/api${endpoint.path
        .replace(/:(id|sum)/, String(ours[thing]))
        .replace(':sum', String(ours.file))
        .replace(':slug', 'ABC')}`
      const query = new URLSearchParams(QUERIES[name])
      if (place.startsWith('query.')) query.set(place.slice(6), String(ours[thing]))
      expect(await statusOf(endpoint, `${path}?${query.toString()}`, elsewhere)).toBe(404)
      return
    }
    const body = BODIES[`${name} ${place}`]
    if (!body) throw new Error(`Say in BODIES what a whole body of ${name} is, but for its ${place}.`)
    // As somebody elsewhere names what is ours, so may we name what is nobody's: both are told the same.
    expect(await statusOf(endpoint, addressOf(endpoint), elsewhere, body(ours[thing]))).toBe(404)
    expect(
      await statusOf(endpoint, addressOf(endpoint), admin, body(thing === 'file' ? NOBODYS_FILE : NOBODYS)),
    ).toBe(404)
  })
})

describe('each endpoint', () => {
  it.each(named)('%s is for those whose right it is', async (_name, endpoint) => {
    const { access } = endpoint
    const nobody = await statusOf(endpoint, addressOf(endpoint), null)
    if (access === 'anybody') {
      expect(nobody).not.toBe(401)
      return
    }
    expect(nobody).toBe(401)
    for (const role of ROLES.toReversed()) {
      const status = await statusOf(endpoint, addressOf(endpoint), cookies[role])
      if (hasRight(role, access.right))
        expect([role, status]).not.toEqual([role, expect.toBeOneOf([401, 403])])
      else expect([role, status]).toEqual([role, 403])
      expect(status).toBeLessThan(500)
    }
  })
})
