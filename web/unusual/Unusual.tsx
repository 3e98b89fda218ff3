import { Button } from '@mui/material'
import { unusualApi, type Unusual as Row } from '@flimbo/core/unusual'
import { useAnswer, useChange } from '../api/index.ts'
import { NoteList } from '../ui/index.ts'

/** What shows it, where days do not. */
const BY: Partial<Record<Row['kind'], string>> = { hour: 'hour', country: 'country' }

/** The results that show it: of the day it is of, and narrowed to what is unusual about it. */
export function resultsOf({
  campaignId,
  codeId,
  day,
  kind,
}: Pick<Row, 'campaignId' | 'codeId' | 'day' | 'kind'>): string {
  const address = new URLSearchParams({
    by: BY[kind] ?? 'day',
    ...(kind === 'hour' ? { from: day, to: day } : { days: '90' }),
    ...(codeId === null ? {} : { code: String(codeId) }),
  })
  return `/campaigns/${String(campaignId)}/results?${address.toString()}`
}

/** What was unusual lately: scans that stopped, far more or fewer than expected, from elsewhere, or of programs. */
export function Unusual() {
  const rows = useAnswer(unusualApi.list, {}, { refetchInterval: 60_000 }).data?.rows ?? []
  const seen = useChange(unusualApi.seen)
  return (
    <NoteList
      title="Unusual"
      sx={{ borderColor: 'warning.main', borderLeftWidth: 4 }}
      notes={rows.map((row) => ({
        key: row.id,
        to: resultsOf(row),
        about: row.codeId === null ? row.name : `${row.campaignName}: ${row.name}`,
        rest: ` ${row.sentence}`,
      }))}
      action={
        <Button
          size="small"
          disabled={seen.isPending}
          onClick={() => {
            seen.mutate({ body: { ids: rows.map(({ id }) => id) } })
          }}
        >
          Take all off the desk
        </Button>
      }
    />
  )
}
