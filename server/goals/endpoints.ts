import { goalsApi, GOALS_MAX, type Goal, type GoalRow } from '@flimbo/core/goals'
import { spanOfDays } from '@flimbo/core/time'
import { missing, mount, overtaken, Refusal, wrongField, type Mounts } from '../api/index.ts'
import { insertedId, tables, type Database } from '../database/index.ts'
import type { Addresses, Doors } from '../line/index.ts'
import type { Reader } from '../reader/index.ts'
import { withinOf } from '../results/index.ts'
import { readSetting, SETTINGS, writeSetting } from '../workspace/index.ts'
import { GOAL_SITE } from './section.ts'
import { siteAddresses, type SiteKeys } from './siteKeys.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  readonly doors: Doors
  readonly addresses: Addresses
  readonly siteKeys: SiteKeys
}

/** The endpoints of goals, as `core`’s contract describes them. */
export function goalsEndpoints(
  mounts: Mounts,
  { database, reader, doors, addresses, siteKeys }: Parts,
): void {
  const { read } = database

  /** Goals with what came of them, in their order. */
  async function withTallies(
    rows: readonly (Goal & { campaignId: number; version: number })[],
  ): Promise<GoalRow[]> {
    const found = await reader.ask(
      'goalTallies',
      rows.map(({ id }) => id),
    )
    const tallies = new Map(found.map((tally) => [tally.goalId, tally]))
    return rows.map((row) => {
      const { reached = 0, valueMilli = 0, lastAt = null } = tallies.get(row.id) ?? {}
      return { ...row, reached, worth: valueMilli / 1000, lastAt }
    })
  }

  async function whole(id: number): Promise<GoalRow> {
    const [row] = await withTallies([await read.findOneByOrFail(tables.goals, { id })])
    if (!row) throw missing('goal')
    return row
  }

  const taken = (key: string) =>
    wrongField('value.key', `Another goal of this campaign has the key ${key}. Choose another.`)

  mount(mounts, goalsApi.list, async ({ query: { campaignId }, who }) => {
    const rows = await read.find(tables.goals, { where: { campaignId }, order: { name: 'ASC', id: 'ASC' } })
    const { value } = await readSetting(read, who.workspace.id, SETTINGS)
    return { rows: await withTallies(rows), currency: value.currency }
  })

  mount(mounts, goalsApi.create, async ({ body: { campaignId, value } }) => {
    const id = await database.write(async (manager) => {
      if ((await manager.countBy(tables.goals, { campaignId })) >= GOALS_MAX)
        throw wrongField('value.name', `A campaign has at most ${String(GOALS_MAX)} goals.`)
      if (await manager.existsBy(tables.goals, { campaignId, key: value.key })) throw taken(value.key)
      const row = { ...value, campaignId, version: 1, createdAt: Date.now() }
      return insertedId(await manager.insert(tables.goals, row))
    })
    await doors.forget({ what: 'goals' })
    return whole(id)
  })

  mount(mounts, goalsApi.change, async ({ params: { id }, body: { value, version } }) => {
    const isStored = await database.write(async (manager) => {
      const row = await manager.findOneByOrFail(tables.goals, { id })
      if (row.version !== version) return false
      const other = await manager.findOneBy(tables.goals, { campaignId: row.campaignId, key: value.key })
      if (other && other.id !== id) throw taken(value.key)
      await manager.update(tables.goals, { id }, { ...value, version: version + 1 })
      return true
    })
    if (!isStored) throw overtaken('goal', await whole(id))
    await doors.forget({ what: 'goals' })
    return whole(id)
  })

  mount(mounts, goalsApi.remove, async ({ params: { id } }) => {
    const { name, lastAt } = await whole(id)
    if (lastAt !== null)
      throw new Refusal('taken', `“${name}” was reached already, and its figures stay. Turn it off instead.`)
    await database.write((manager) => manager.delete(tables.goals, { id }))
    await doors.forget({ what: 'goals' })
  })

  mount(
    mounts,
    goalsApi.events,
    async ({ query: { from, to, goalId, page, pageSize, order, sort: _sort, ...of }, who, campaign }) => {
      const workspaceId = who.workspace.id
      const { start, end } = spanOfDays(campaign?.zone ?? who.workspace.zone, from, to)
      const filter = { within: withinOf(of, workspaceId), workspaceId, start, end, goalId }
      const { rows, total } = await reader.ask('goalEvents', filter, order, pageSize, page * pageSize)
      return { rows, total, page, pageSize }
    },
  )

  mount(mounts, goalsApi.pages, async ({ query: { from, to, ...of }, who, campaign }) => {
    const workspaceId = who.workspace.id
    const { start, end } = spanOfDays(campaign?.zone ?? who.workspace.zone, from, to)
    return reader.ask('sitePages', { within: withinOf(of, workspaceId), workspaceId, start, end })
  })

  async function site(workspaceId: number) {
    const setting = await readSetting(read, workspaceId, GOAL_SITE)
    return {
      ...setting,
      ...siteAddresses(addresses.door, siteKeys.keyOf(workspaceId)),
      lastAt: await reader.ask('siteReportedAt', workspaceId),
    }
  }

  mount(mounts, goalsApi.site, ({ who }) => site(who.workspace.id))

  mount(mounts, goalsApi.changeSite, async ({ body, who }) => {
    const { value } = await readSetting(read, who.workspace.id, GOAL_SITE)
    // A secret that was replaced must never be good again.
    if (body.value.secretNumber < value.secretNumber)
      throw wrongField('value.secretNumber', 'The secret was replaced meanwhile. Load this anew.')
    await writeSetting(database, who.workspace.id, GOAL_SITE, body)
    await doors.forget({ what: 'goals' })
    return site(who.workspace.id)
  })

  mount(mounts, goalsApi.secret, async ({ who }) => {
    const { value } = await readSetting(read, who.workspace.id, GOAL_SITE)
    return { secret: siteKeys.secretOf(who.workspace.id, value.secretNumber) }
  })
}
