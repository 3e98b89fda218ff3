import { IMPORT_LINES_MAX, type LineVerdict } from '@flimbo/core/plan'
import { Refusal } from '../api/index.ts'
import type { CampaignRow } from '../database/index.ts'
import { domainFor } from '../domains/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { rowsOf, type ImportOrder, type Judgement, type ReadTable } from './importFile.ts'
import type { SheetReader } from './sheets.ts'
import { planWorld, type WorldParts } from './world.ts'

interface Parts extends WorldParts {
  readonly live: LiveHub
  readonly sheets: SheetReader
}

/** Works out line by line what a file would do to a campaign. @throws Refusal where it cannot be told */
export async function judgeFile(
  parts: Parts,
  campaign: CampaignRow,
  table: ReadTable,
  order: ImportOrder,
): Promise<Judgement> {
  const { database, live, sheets } = parts
  const { mapping, empty, fix } = order
  const rows = rowsOf(table, order)
  if (rows.length > IMPORT_LINES_MAX)
    throw new Refusal(
      'tooLarge',
      `The file has ${rows.length.toLocaleString('en-GB')} lines; ${IMPORT_LINES_MAX.toLocaleString('en-GB')} go at once. Split it.`,
    )
  const edition = live.edition(campaign.workspaceId)
  const domainId = await domainFor(database.read, campaign)
  const judged = await sheets.judge({
    rows,
    mapping,
    world: await planWorld(parts, campaign, domainId, rows, mapping),
    options: { empty, guarded: table.kind === 'text', fix },
  })
  if (!judged.ok) throw new Refusal('invalid', judged.sentence)
  const { lines } = judged
  const count = (verdict: LineVerdict) => lines.filter((line) => line.verdict === verdict).length
  return {
    lines,
    edition,
    counts: {
      create: count('create'),
      change: count('change'),
      same: count('same'),
      refuse: count('refuse'),
      warned: lines.filter(({ verdict, findings }) => verdict !== 'refuse' && findings.length > 0).length,
    },
  }
}
