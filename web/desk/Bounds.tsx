import { routesApi, type BoundRow } from '@flimbo/core/routing'
import { useAnswer } from '../api/index.ts'
import { quantity, day, moment, number } from '@flimbo/core/formats'
import { NoteList } from '../ui/index.ts'

const dayOf = (at: number | null) =>
  at === null ? 'much later' : day(new Date(at).toISOString().slice(0, 10))

function sentence({ kind, at, between, zone, limit }: BoundRow): string {
  switch (kind) {
    case 'full':
      return `has let all of its ${number(limit ?? 0)} scans through; every further scan gets the answer for then.`
    case 'full-today':
      return 'has let all of today’s scans through.'
    case 'over':
      return `ended ${moment(at ?? 0, zone)}.`
    case 'ends-soon':
      return `ends ${moment(at ?? 0, zone)}.`
    case 'full-soon':
      return `will have used its ${number(limit ?? 0)} scans about ${dayOf(at)} at the present pace (${dayOf(between?.[0] ?? null)} to ${dayOf(between?.[1] ?? null)}).`
  }
}

/** Routes whose dates or limits need somebody: reached, over, or soon. */
export function Bounds() {
  const rows = useAnswer(routesApi.attention, {}).data?.rows ?? []
  return (
    <NoteList
      title="Dates and limits"
      sx={{
        borderColor: rows.some(({ urgent }) => urgent) ? 'warning.main' : 'divider',
        borderLeftWidth: 4,
      }}
      notes={rows.map((row) => ({
        key: `${String(row.routeId)}${row.kind}`,
        to: `/campaigns/${String(row.campaignId)}/routes?route=${String(row.routeId)}`,
        about: `${row.campaignName}: ${row.routeName}`,
        rest: ` (${quantity(row.codes, 'code')}) ${sentence(row)}`,
      }))}
    />
  )
}
