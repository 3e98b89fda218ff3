import type { EntityManager } from 'typeorm'
import type { LeadRate, RatesBy } from '@flimbo/core/leads'
import { wilson } from '@flimbo/core/results'
import { dayIn } from '@flimbo/core/time'
import { tables } from '../database/index.ts'
import type { Reader } from '../reader/index.ts'
import type { LeadQuery } from './queries.ts'

interface Asked {
  readonly campaignId: number
  readonly by: RatesBy
  readonly zone: string
  readonly from?: string | undefined
  readonly to?: string | undefined
  readonly query: LeadQuery
}

/** Days of results reach no further back. */
const EARLIEST = '2000-01-01'
const ROWS_MAX = 200

const BY_LEAD = { piece: 'codeId', medium: 'codeId', country: 'country', city: 'city' } as const
const BY_SCAN = { piece: 'piece', medium: 'piece', country: 'country', city: 'city' } as const

/** Leads a scan: somebody may answer more than once, so that a rate is of what can have been at most. */
function rateOf(key: string, name: string, scans: number, leads: number): LeadRate {
  return { key, name, scans, leads, rate: scans === 0 ? null : wilson(Math.min(leads, scans), scans) }
}

/** Sums counts under other keys. */
function regrouped(counts: ReadonlyMap<string, number>, keyOf: (key: string) => string): Map<string, number> {
  const sums = new Map<string, number>()
  for (const [key, count] of counts) sums.set(keyOf(key), (sums.get(keyOf(key)) ?? 0) + count)
  return sums
}

/** How many leads a scan brought, by piece, medium or place, the most leads first. */
export async function leadRates(
  { read, reader }: { read: EntityManager; reader: Reader },
  { campaignId, by, zone, from = EARLIEST, to = dayIn(zone, Date.now()), query }: Asked,
): Promise<{ rows: LeadRate[]; all: LeadRate }> {
  const cells = await reader.ask('crossed', { campaignId, zone, from, to, by: [BY_SCAN[by]], filters: {} })
  const scansBy = new Map(cells.map(({ keys: [key = ''], scans }) => [key, scans]))
  const leadsBy = await reader.ask('leadCounts', query, BY_LEAD[by])
  const codes = by === 'piece' || by === 'medium' ? await read.findBy(tables.codes, { campaignId }) : []
  const codeOf = new Map(codes.map((code) => [String(code.id), code]))
  const keyOf = (key: string) => (by === 'medium' ? (codeOf.get(key)?.medium ?? '') : key)
  const [scans, leads] = [regrouped(scansBy, keyOf), regrouped(leadsBy, keyOf)]
  const nameOf = (key: string) =>
    by === 'piece' ? (codeOf.get(key)?.name ?? '') : (key.split('\t').at(-1) ?? '')
  const keys = [...new Set([...scans.keys(), ...leads.keys()])]
  const rows = keys
    .map((key) => rateOf(key, nameOf(key), scans.get(key) ?? 0, leads.get(key) ?? 0))
    .sort((a, b) => b.leads - a.leads || b.scans - a.scans || (a.key < b.key ? -1 : 1))
  const sum = (of: 'scans' | 'leads') => rows.reduce((total, row) => total + row[of], 0)
  return { rows: rows.slice(0, ROWS_MAX), all: rateOf('', '', sum('scans'), sum('leads')) }
}
