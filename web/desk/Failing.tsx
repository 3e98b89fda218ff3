import { checksApi, isFailure } from '@flimbo/core/checks'
import { moment, quantity } from '@flimbo/core/formats'
import { useAnswer } from '../api/index.ts'
import { NoteList } from '../ui/index.ts'

/** Destinations that need somebody now: those that fail, since when, and those that lose their tags. */
export function Failing() {
  const rows = useAnswer(checksApi.failing, {}).data?.rows ?? []
  return (
    <NoteList
      title="Failing destinations"
      sx={{ borderColor: 'warning.main', borderLeftWidth: 4 }}
      notes={rows.map((row) => ({
        key: row.routeId,
        to: `/campaigns/${String(row.campaignId)}/routes?route=${String(row.routeId)}&tab=check`,
        about: `${row.campaignName}: ${row.routeName}`,
        rest: `${
          isFailure(row.verdict)
            ? ` fails since ${moment(row.failingSince ?? row.at, row.zone)}`
            : ' loses its tags'
        } (${quantity(row.codes, 'code')}). ${row.sentence}`,
      }))}
    />
  )
}
