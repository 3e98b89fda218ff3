import type { Faker } from '@faker-js/faker'
import type { GoalSettings, ReachedGoal } from '@flimbo/core/goals'
import { insertedId, tables, type Database } from '@flimbo/server/database'
import type { SiteRecord } from '@flimbo/server/goals'
import Sqlite from 'better-sqlite3'
import { siteInserter } from '../../server/goals/insert.ts'

const SITE = 'saltmarsh.example'
const MINUTE = 60_000
/** So many of those who are sent to the site have a browser that tells of it. */
const ARRIVING = 0.72
const AT_ONCE = 2000

const plain = { pattern: '', selector: '', value: null, signedOnly: false, isOn: true } as const
const GOALS = {
  seats: {
    ...plain,
    name: 'Looked at free seats',
    kind: 'click',
    key: 'seats',
    selector: '.seats',
    counts: 'scan',
  },
  pass: { ...plain, name: 'Season pass ordered', kind: 'sent', key: 'season-pass', counts: 'each' },
  thanks: {
    ...plain,
    name: 'Page of thanks',
    kind: 'address',
    key: 'thanks',
    pattern: '/*/thanks',
    counts: 'scan',
  },
} as const satisfies Record<string, GoalSettings>
/** How many of those who arrive reach each. */
const REACHING: Readonly<Record<keyof typeof GOALS, number>> = { seats: 0.11, pass: 0.021, thanks: 0.02 }
const WORTH = 39_000

interface Sent {
  id: number
  at: number
  codeId: number
  routeId: number
}

/** Goals of the sample's campaigns, and what visitors did on the company's site after they were sent there. */
export async function fillGoals(database: Database, faker: Faker, now: number): Promise<void> {
  const campaigns = await database.read.find(tables.campaigns)
  const goalIds = new Map<number, Map<keyof typeof GOALS, number>>()
  await database.write(async (manager) => {
    for (const { id: campaignId } of campaigns) {
      await manager.update(tables.campaigns, { id: campaignId }, { referenceHours: 24 })
      const ids = new Map<keyof typeof GOALS, number>()
      for (const [name, settings] of Object.entries(GOALS)) {
        const row = { ...settings, campaignId, version: 1, createdAt: now }
        // Its own names.
        ids.set(name as keyof typeof GOALS, insertedId(await manager.insert(tables.goals, row)))
      }
      goalIds.set(campaignId, ids)
    }
  })
  const codes = await database.read.find(tables.codes, { select: { id: true, campaignId: true } })
  const campaignOf = new Map(codes.map(({ id, campaignId }) => [id, campaignId]))
  const connection = new Sqlite(database.file)
  connection.pragma('busy_timeout = 20000')
  const sent = connection
    .prepare(
      "SELECT id, at, codeId, routeId FROM scans WHERE outcome = 'redirect' AND apart IS NULL AND at < ? ORDER BY id",
    )
    .all(now - 20 * MINUTE) as Sent[]
  const store = siteInserter(connection)
  let records: SiteRecord[] = []
  for (const { id: scanId, at, codeId, routeId } of sent) {
    if (faker.number.float() >= ARRIVING) continue
    const ids = goalIds.get(campaignOf.get(codeId) ?? 0)
    const common = { workspaceId: 1, codeId, scanId, routeId, apart: '' }
    const page = faker.helpers.arrayElement(['/fahrplan', '/timetable', '/seals', '/pass', '/tides'])
    const seconds = Math.round(-40 * Math.log(1 - faker.number.float()))
    const reached = (name: keyof typeof GOALS, order: string, valueMilli: number): ReachedGoal[] => {
      const goalId = ids?.get(name)
      const once = order === '' ? `scan ${String(scanId)}` : `order ${order}`
      return goalId === undefined || faker.number.float() >= REACHING[name]
        ? []
        : [{ goalId, once, order, valueMilli }]
    }
    const own = [
      ...reached('seats', '', 0),
      ...reached('thanks', '', 0),
      ...reached('pass', `S-${String(scanId)}`, WORTH),
    ]
    records.push({
      ...common,
      at: at + 2000,
      view: { key: 'a', page: `${SITE}${page}`, seconds },
      reached: own,
    })
    if (records.length >= AT_ONCE) {
      store(records)
      records = []
    }
  }
  store(records)
  connection.close()
}
