import { Alert, Box, Button, Typography } from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import {
  allLanes,
  changesInWords,
  differences,
  isSameRoute,
  NO_RULES,
  routesApi,
  type Lane,
  type LinkedPage,
  type Names,
  type Revision,
  type Rules,
  type WholeRoute,
} from '@flimbo/core/routing'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { When } from '../ui/index.ts'
import { useNames } from './useNames.ts'

const STEP = 10
const NAMES: Readonly<Record<string, string>> = {
  sizeMm: 'size in mm',
  otherwise: 'own destination',
  styleId: 'house style',
  placement: 'picture it lies on',
}
/** Fields whose values say nothing to people. */
const SILENT = ['styleId', 'placement']

const STATE_CHANGES: Readonly<Record<string, string>> = {
  live: 'set it live',
  paused: 'paused it',
  deleted: 'deleted it',
}

const partOf = (side: Revision['after']) => ({
  destination: String(side.destination),
  rules: (side.rules as Rules | undefined) ?? NO_RULES,
})

/** The same with the lanes of the shared set as they were then. */
const wholeOf = (side: Revision['after']) => ({
  destination: '',
  rules: {
    ...partOf(side).rules,
    lanes: allLanes(partOf(side).rules, (side.sharedLanes as Lane[] | undefined) ?? []),
  },
})

/** The pages that were led to before and after, and show something else since. */
function changedPages({ before, after }: Revision): string[] {
  const pagesOf = (side: Revision['after'] | null) => (side?.pages as LinkedPage[] | undefined) ?? []
  return pagesOf(after)
    .filter((page) =>
      pagesOf(before).some((was) => was.id === page.id && JSON.stringify(was) !== JSON.stringify(page)),
    )
    .map(({ name }) => `changed what the page “${name}” shows`)
}

/** A revision in words. */
function sentences(revision: Revision, names: Names): string[] {
  if (revision.before === null)
    return [
      revision.of === 'route'
        ? `made it, leading to ${String(revision.after.destination)}`
        : `issued it as ${String(revision.after.slug)}`,
    ]
  const rules =
    revision.of === 'route' ? changesInWords(wholeOf(revision.before), wholeOf(revision.after), names) : []
  const fields = differences(revision)
    .filter(({ field }) => field !== 'rules' && field !== 'sharedLanes' && field !== 'pages')
    .map(({ field, was, is }) => {
      if (field === 'destination') return `made it lead to ${String(is)} instead of ${String(was)}`
      if (field === 'state') return STATE_CHANGES[String(is)] ?? 'changed its state'
      if (field === 'routeId') return 'moved it to another route'
      if (field === 'locked') return is === true ? 'put a password before it' : 'took the password away'
      return is === ''
        ? `took the ${NAMES[field] ?? field} away`
        : `changed the ${NAMES[field] ?? field}${SILENT.includes(field) ? '' : ` to “${String(is)}”`}`
    })
  const all = [...fields, ...rules, ...changedPages(revision)]
  return all.length > 0 ? all : ['changed the password']
}

/** Every change of a route or a code, the newest first; a route can go back to any of them in one step. */
export function History({
  of,
  id,
  zone,
  route,
}: {
  of: Revision['of']
  id: number
  zone: string
  route?: WholeRoute
}) {
  const [shown, setShown] = useState(STEP)
  const { revisions: endpoint } = of === 'route' ? routesApi : codesApi
  const revisions = useAnswer(endpoint, { params: { id }, query: { pageSize: shown, order: 'desc' } })
  const known = useNames()
  const names: Names = { ...known, route: (id) => `route ${String(id)}` }
  const back = useChange(routesApi.goBack)
  const rows = revisions.data?.rows ?? []
  const current = rows[0] && partOf(rows[0].after)
  return (
    <>
      {back.error && (
        <Alert severity="error" variant="outlined">
          {sentenceOf(back.error, 'The older version could not be restored. Nothing has changed.')}
        </Alert>
      )}
      <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }} aria-label="Changes">
        {rows.map((revision) => (
          <Box
            component="li"
            key={revision.id}
            sx={{
              display: 'grid',
              gridTemplateColumns: '28px 110px minmax(0, 1fr) auto',
              gap: 1,
              py: 0.75,
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <Typography variant="body2" color="textSecondary">
              {revision.number}
            </Typography>
            <Typography variant="body2" color="textSecondary">
              <When at={revision.at} zone={zone} />
            </Typography>
            <Typography variant="body2" sx={{ overflowWrap: 'anywhere' }}>
              <strong>{revision.by}</strong> {sentences(revision, names).join('; ')}
            </Typography>
            {route && current && !isSameRoute(partOf(revision.after), current) && (
              <Button
                disabled={back.isPending}
                onClick={() => {
                  back.mutate({ params: { id }, body: { version: route.version, number: revision.number } })
                }}
              >
                Go back to {revision.number}
              </Button>
            )}
          </Box>
        ))}
      </Box>
      {(revisions.data?.total ?? 0) > shown && (
        <Button
          onClick={() => {
            setShown(shown + STEP)
          }}
        >
          Show older changes
        </Button>
      )}
    </>
  )
}
