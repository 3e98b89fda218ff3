import { Box, Button, Typography } from '@mui/material'
import { differences, routesApi, type Revision } from '@flimbo/core/routing'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { When } from '../ui/index.ts'

const STEP = 10

/** A revision in words. */
function sentences(revision: Revision): string[] {
  if (revision.before === null) return [`made it, leading to ${String(revision.after.destination)}`]
  return differences(revision).map(({ field, was, is }) => {
    if (field === 'destination') return `made it lead to ${String(is)} instead of ${String(was)}`
    if (field === 'state') return is === 'live' ? 'set it live' : is === 'paused' ? 'paused it' : 'deleted it'
    return is === '' ? `took the ${field} away` : `changed the ${field} to “${String(is)}”`
  })
}

/** Every change of a route, the newest first. */
export function History({ routeId, zone }: { routeId: number; zone: string }) {
  const [shown, setShown] = useState(STEP)
  const revisions = useAnswer(routesApi.revisions, { params: { id: routeId }, query: { pageSize: shown, order: 'desc' } })
  return (
    <>
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }} aria-label="Changes">
        {revisions.data?.rows.map((revision) => (
          <Box component="li" key={revision.id} sx={{ display: 'grid', gridTemplateColumns: '28px 110px minmax(0, 1fr)', gap: 1, py: 0.75, borderBottom: 1, borderColor: 'divider' }}>
            <Typography variant="body2" color="textSecondary">{revision.number}</Typography>
            <Typography variant="body2" color="textSecondary"><When at={revision.at} zone={zone} /></Typography>
            <Typography variant="body2" sx={{ overflowWrap: 'anywhere' }}><strong>{revision.by}</strong> {sentences(revision).join('; ')}</Typography>
          </Box>
        ))}
      </Box>
      {(revisions.data?.total ?? 0) > shown && <Button onClick={() => { setShown(shown + STEP) }}>Show older changes</Button>}
    </>
  )
}
