import { LinearProgress, Stack, Typography } from '@mui/material'
import type { Job } from '@flimbo/core/jobs'
import { number } from '@flimbo/core/formats'

/** How far a job is, in numbers where they are known and as a bar. */
export function JobProgress({ job: { title, done, total } }: { job: Pick<Job, 'title' | 'done' | 'total'> }) {
  const isKnown = total > 0
  return (
    <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', minWidth: 0 }}>
      <LinearProgress
        aria-label={title}
        variant={isKnown ? 'determinate' : 'indeterminate'}
        value={isKnown ? (done / total) * 100 : undefined}
        sx={{ flex: 1 }}
      />
      {isKnown && (
        <Typography variant="body2" color="textSecondary" noWrap>
          {number(done)} of {number(total)}
        </Typography>
      )}
    </Stack>
  )
}
