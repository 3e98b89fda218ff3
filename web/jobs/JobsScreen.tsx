import {
  Box,
  Pagination,
  Skeleton,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import { isActive, jobsApi, type Job, type JobState } from '@flimbo/core/jobs'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { Empty, Sheet, Trouble, When } from '../ui/index.ts'
import { useSession } from '../session/index.ts'
import { JobActions } from './JobActions.tsx'
import { JobProgress } from './JobProgress.tsx'

const PAGE = 50
const LOOK_MS = 1500
const STATES: Readonly<Record<JobState, string>> = {
  draft: 'Draft',
  waiting: 'Waiting',
  running: 'Running',
  done: 'Done',
  failed: 'Failed',
  cancelled: 'Cancelled',
}

/** Everything that takes longer than an answer: imports, destination checks, files. */
export function JobsScreen() {
  const {
    workspace: { zone },
  } = useSession()
  const [page, setPage] = useState(0)
  const jobs = useAnswer(
    jobsApi.list,
    { query: { page, pageSize: PAGE, order: 'desc' } },
    { refetchInterval: LOOK_MS },
  )
  const rows = jobs.data?.rows ?? []
  const pages = Math.ceil((jobs.data?.total ?? 0) / PAGE)
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        Jobs
      </Typography>
      {jobs.isError && (
        <Trouble
          error={jobs.error}
          retry={() => {
            void jobs.refetch()
          }}
        />
      )}
      {!jobs.data && !jobs.isError && <Skeleton variant="rounded" height={240} />}
      {jobs.data?.total === 0 && (
        <Sheet>
          <Empty
            title="No jobs yet"
            text="Imports, destination checks and downloads run here. Each is kept for 30 days, its file for a day; what the server was stopped in the middle of goes on by itself."
          />
        </Sheet>
      )}
      {rows.length > 0 && (
        <Sheet pad={false}>
          <Table size="small" aria-label="Jobs" sx={{ tableLayout: 'fixed' }}>
            <TableHead>
              <TableRow>
                <TableCell>Job</TableCell>
                <TableCell sx={{ width: 150 }}>By</TableCell>
                <TableCell sx={{ width: 120 }}>Started</TableCell>
                <TableCell sx={{ width: 100 }}>State</TableCell>
                <TableCell>Outcome</TableCell>
                <TableCell sx={{ width: 190 }} aria-label="Actions" />
              </TableRow>
            </TableHead>
            <TableBody>
              {rows.map((job) => (
                <JobRow key={job.id} job={job} zone={zone} />
              ))}
            </TableBody>
          </Table>
          {pages > 1 && (
            <Pagination
              size="small"
              sx={{ p: 1 }}
              count={pages}
              page={page + 1}
              onChange={(_event, to) => {
                setPage(to - 1)
              }}
            />
          )}
        </Sheet>
      )}
    </Box>
  )
}

function JobRow({ job, zone }: { job: Job; zone: string }) {
  return (
    <TableRow>
      <TableCell sx={{ overflowWrap: 'anywhere' }}>{job.title}</TableCell>
      <TableCell>{job.by ?? 'Flimbo'}</TableCell>
      <TableCell>
        <When at={job.createdAt} zone={zone} />
      </TableCell>
      <TableCell sx={job.state === 'failed' ? { color: 'error.main', fontWeight: 650 } : {}}>
        {STATES[job.state]}
      </TableCell>
      <TableCell>
        {isActive(job) && <JobProgress job={job} />}
        {job.sentence}
      </TableCell>
      <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
        <JobActions job={job} />
      </TableCell>
    </TableRow>
  )
}
