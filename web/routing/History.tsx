import { Box, Button, Typography } from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { differences, routesApi, type Revision } from '@flimbo/core/routing'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { When } from '../ui/index.ts'

const STEP = 10
const NAMES: Readonly<Record<string, string>> = { sizeMm: 'size in mm' }

/** A revision in words. */
function sentences(revision: Revision): string[] {
  if (revision.before === null) return [revision.of === 'route' ? `made it, leading to ${String(revision.after.destination)}` : `issued it as ${String(revision.after.slug)}`]
  return differences(revision).map(({ field, was, is }) => {
    if (field === 'destination') return `made it lead to ${String(is)} instead of ${String(was)}`
    if (field === 'state') return is === 'live' ? 'set it live' : is === 'paused' ? 'paused it' : 'deleted it'
    if (field === 'routeId') return 'moved it to another route'
    return is === '' ? `took the ${NAMES[field] ?? field} away` : `changed the ${NAMES[field] ?? field} to “${String(is)}”`
  })
}

/** Every change of a route or a code, the newest first. */
export function History({ of, id, zone }: { of: Revision['of']; id: number; zone: string }) {
  const [shown, setShown] = useState(STEP)
  const { revisions: endpoint } = of === 'route' ? routesApi : codesApi
  const revisions = useAnswer(endpoint, { params: { id }, query: { pageSize: shown, order: 'desc' } })
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
