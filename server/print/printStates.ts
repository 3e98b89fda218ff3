import type Sqlite from 'better-sqlite3'
import { contentOf, shortLink } from '@flimbo/core/codes'
import { PROOF_STATES, proofKey, type Level, type Placement, type ProofState } from '@flimbo/core/symbol'

/** Origins of short links, by the number of their domain. */
export type Origins = Readonly<Record<number, string>>

interface Row {
  readonly id: number
  readonly domainId: number
  readonly slug: string
  readonly level: Level
  readonly sizeMm: number
  readonly viewingM: number | null
  readonly placement: string | null
  readonly styleId: number | null
  readonly styleVersion: number | null
  readonly key: string | null
  readonly readiness: ProofState | null
}

/** How far the pieces of a campaign are, on the reading thread: of a plan of thousands it takes its time. */
export function printStates(database: Sqlite.Database) {
  const pieces = database.prepare<[number], Row>(
    `SELECT c.id, c.domainId, c.slug, c.level, c.sizeMm, c.viewingM, c.placement, c.styleId, h.version AS styleVersion, p."key", p.readiness
     FROM codes c LEFT JOIN house_styles h ON h.id = c.styleId LEFT JOIN proofs p ON p.codeId = c.id
     WHERE c.campaignId = ? AND c.state <> 'deleted' AND c.archivedAt IS NULL`,
  )

  function stateOf(
    { styleId, styleVersion, key, readiness, placement, ...row }: Row,
    origins: Origins,
  ): ProofState {
    if (key === null || readiness === null) return 'draft'
    const origin = origins[row.domainId] ?? ''
    const now = proofKey({
      ...row,
      text: contentOf({ origin, slug: row.slug }),
      link: shortLink(origin, row.slug),
      placement: placement === null ? null : (JSON.parse(placement) as Placement),
      style: styleId === null || styleVersion === null ? null : { id: styleId, version: styleVersion },
    })
    return now === key ? readiness : 'draft'
  }

  return {
    printCounts(campaignId: number, origins: Origins): Record<ProofState, number> {
      const counts = Object.fromEntries(PROOF_STATES.map((state) => [state, 0])) as Record<ProofState, number>
      for (const row of pieces.iterate(campaignId)) counts[stateOf(row, origins)]++
      return counts
    },
    /** Numbers of the pieces that are so far. */
    withPrintState(campaignId: number, origins: Origins, state: ProofState): number[] {
      const ids: number[] = []
      for (const row of pieces.iterate(campaignId)) if (stateOf(row, origins) === state) ids.push(row.id)
      return ids
    },
  }
}
