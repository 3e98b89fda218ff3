import { Button, LinearProgress, Stack, Typography } from '@mui/material'
import { checksApi } from '@flimbo/core/checks'
import { useQuery } from '@tanstack/react-query'
import { call, useChange } from '../api/index.ts'
import { number } from '../ui/index.ts'

const LOOK_MS = 700

/** How far a check of all destinations is, while one is under way. */
export function CheckProgress() {
  const run = useQuery({
    queryKey: [checksApi.run.path, {}],
    queryFn: () => call(checksApi.run, {}),
    refetchInterval: ({ state }) => (state.data?.running ? LOOK_MS : false),
  })
  const cancel = useChange(checksApi.cancel)
  if (!run.data?.running) return null
  const { done, total } = run.data
  return (
    <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center' }}>
      <Typography variant="body2" role="status" noWrap>
        Checking destinations: {number(done)} of {number(total)}
      </Typography>
      <LinearProgress
        aria-label="Checking destinations"
        variant="determinate"
        value={total === 0 ? 0 : (done / total) * 100}
        sx={{ flex: 1 }}
      />
      <Button
        size="small"
        color="inherit"
        onClick={() => {
          cancel.mutate({})
        }}
      >
        Stop
      </Button>
    </Stack>
  )
}
