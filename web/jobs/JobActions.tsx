import { Button } from '@mui/material'
import { canCancel, jobsApi, type Job } from '@flimbo/core/jobs'
import { hrefOf, useChange } from '../api/index.ts'

/** What can be done with a job: cancelled, tried again, its file downloaded. */
export function JobActions({ job }: { job: Job }) {
  const cancel = useChange(jobsApi.cancel)
  const retry = useChange(jobsApi.retry)
  const { id, state, file } = job
  const isRetryable = state === 'failed' || (state === 'waiting' && job.attempts > 0)
  return (
    <>
      {file && (
        <Button size="small" href={hrefOf(jobsApi.file, { params: { id } })} download={file.name}>
          Download
        </Button>
      )}
      {isRetryable && (
        <Button
          size="small"
          disabled={retry.isPending}
          onClick={() => {
            retry.mutate({ params: { id } })
          }}
        >
          Try again
        </Button>
      )}
      {canCancel(job) && (
        <Button
          size="small"
          color="inherit"
          disabled={cancel.isPending}
          onClick={() => {
            cancel.mutate({ params: { id } })
          }}
        >
          Cancel
        </Button>
      )}
    </>
  )
}
