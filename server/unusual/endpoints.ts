import { In, IsNull, MoreThan } from 'typeorm'
import { findingInWords, unusualApi } from '@flimbo/core/unusual'
import { mount, type Mounts } from '../api/index.ts'
import { findAmong, tables, type Database } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import { unlessTooMuch, withinOf } from '../results/index.ts'

/** What is on the desk, and for how long. */
const SHOWN_MS = 7 * 24 * 3_600_000
const SHOWN_MAX = 200

const nameOf = (rows: readonly { id: number; name: string }[]) =>
  new Map(rows.map(({ id, name }) => [id, name]))

/** The endpoints of what is unusual, as `core`’s contract describes them. */
export function unusualEndpoints(
  mounts: Mounts,
  { database, reader }: { database: Database; reader: Reader },
): void {
  const { read } = database
  mount(mounts, unusualApi.list, async ({ who }) => {
    const rows = await read.find(tables.unusual, {
      where: { workspaceId: who.workspace.id, at: MoreThan(Date.now() - SHOWN_MS), seenAt: IsNull() },
      order: { at: 'DESC', id: 'DESC' },
      take: SHOWN_MAX,
    })
    const codes = nameOf(
      await findAmong(
        read,
        tables.codes,
        'id',
        rows.map(({ codeId }) => codeId),
      ),
    )
    const campaigns = nameOf(
      await findAmong(
        read,
        tables.campaigns,
        'id',
        rows.map(({ campaignId }) => campaignId),
      ),
    )
    return {
      rows: rows.map((row) => {
        const { id, at, kind, campaignId, day } = row
        const campaignName = campaigns.get(campaignId) ?? ''
        const codeId = row.codeId === 0 ? null : row.codeId
        return {
          ...{ id, at, kind, campaignId, campaignName, codeId, day },
          name: codeId === null ? campaignName : (codes.get(codeId) ?? ''),
          sentence: findingInWords({ ...row, codeId }),
        }
      }),
    }
  })

  mount(mounts, unusualApi.seen, async ({ body: { ids }, who }) => {
    await database.write((manager) =>
      manager.update(tables.unusual, { id: In(ids), workspaceId: who.workspace.id }, { seenAt: Date.now() }),
    )
  })

  mount(mounts, unusualApi.expected, async ({ query: { from, to, ...of }, who, campaign }) => {
    const zone = campaign?.zone ?? who.workspace.zone
    const within = withinOf(of, who.workspace.id)
    const minute = Math.floor(Date.now() / 60_000)
    const rows = await unlessTooMuch('from', () =>
      reader.ask('expectedDays', within, zone, { from, to }, minute),
    )
    return { rows }
  })
}
