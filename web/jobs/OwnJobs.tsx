import CloseIcon from '@mui/icons-material/Close'
import { Box, IconButton, Link, Paper, Stack, Typography } from '@mui/material'
import { isActive, jobsApi, type Job } from '@flimbo/core/jobs'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { Link as RouterLink, useLocation } from 'react-router'
import { call } from '../api/index.ts'
import { takeFile } from './files.ts'
import { JobActions } from './JobActions.tsx'
import { JobProgress } from './JobProgress.tsx'

const LOOK_MS = 700
const NEWEST = { query: { shown: 'own', order: 'desc', pageSize: 5 } } as const
/** Imports have a screen of their own, which says the same. */
const isShown = ({ kind }: Job) => kind !== 'import'

/**
 * What somebody began that takes longer than an answer: how far it is, and what came of it, until it is closed. What
 * went well stands in nobody's way on the next screen; the list of jobs has it.
 */
export function OwnJobs() {
  const { data } = useQuery({
    queryKey: [jobsApi.list.path, NEWEST],
    queryFn: ({ signal }) => call(jobsApi.list, NEWEST, signal),
    refetchInterval: ({ state }) => (state.data?.rows.some(isActive) ? LOOK_MS : false),
  })
  const [closed, setClosed] = useState<ReadonlySet<number>>(new Set())
  /** Those that were under way while this window was open: what ended before is no news. */
  const [seen, setSeen] = useState<ReadonlySet<number>>(new Set())
  useEffect(() => {
    const news = (data?.rows ?? []).filter((job) => takeFile(job) || isActive(job))
    if (news.length > 0) setSeen((old) => new Set([...old, ...news.map(({ id }) => id)]))
  }, [data])
  const { pathname } = useLocation()
  const rows = useRef<readonly Job[]>([])
  useEffect(() => {
    rows.current = data?.rows ?? []
  }, [data])
  useEffect(() => {
    const read = rows.current.filter(({ state }) => state === 'done').map(({ id }) => id)
    if (read.length > 0) setClosed((old) => new Set([...old, ...read]))
  }, [pathname])
  const shown = (data?.rows ?? []).filter((job) => isShown(job) && seen.has(job.id) && !closed.has(job.id))
  if (shown.length === 0) return null
  return (
    <Paper
      component="aside"
      aria-label="Your jobs"
      elevation={4}
      sx={{ position: 'fixed', left: 16, bottom: 16, width: 360, zIndex: 'snackbar', p: 1.5 }}
    >
      <Stack spacing={1.5}>
        {shown.map((job) => (
          <Box key={job.id}>
            <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
              <Typography variant="body2" noWrap sx={{ flex: 1, fontWeight: 650 }}>
                {job.title}
              </Typography>
              {!isActive(job) && (
                <IconButton
                  size="small"
                  aria-label={`Close ${job.title}`}
                  onClick={() => {
                    setClosed((old) => new Set(old).add(job.id))
                  }}
                >
                  <CloseIcon fontSize="inherit" />
                </IconButton>
              )}
            </Stack>
            {isActive(job) && <JobProgress job={job} />}
            <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
              <Typography
                variant="body2"
                role="status"
                color={job.state === 'failed' ? 'error' : 'textSecondary'}
                sx={{ flex: 1 }}
              >
                {job.sentence}
              </Typography>
              <JobActions job={job} />
            </Stack>
          </Box>
        ))}
        <Link component={RouterLink} to="/jobs" variant="body2">
          All jobs
        </Link>
      </Stack>
    </Paper>
  )
}
