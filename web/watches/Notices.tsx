import { Button } from '@mui/material'
import { resultsPath, watchesApi } from '@flimbo/core/watches'
import { useAnswer, useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { NoteList, When } from '../ui/index.ts'

/** What happened that somebody watches for, until they take it off the desk. */
export function Notices() {
  const { zone } = useSession().workspace
  const rows = useAnswer(watchesApi.notices, {}).data?.rows ?? []
  const seen = useChange(watchesApi.seen)
  return (
    <NoteList
      title="You watch for"
      sx={{ borderLeftWidth: 4, borderLeftColor: 'primary.main' }}
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
      notes={rows.map((notice) => ({
        key: notice.id,
        to: resultsPath(notice),
        about: notice.sentence,
        rest: (
          <>
            {' '}
            <When at={notice.at} zone={zone} />
          </>
        ),
      }))}
    />
  )
}
