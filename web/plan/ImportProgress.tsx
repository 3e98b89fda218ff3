import { Alert, Button, LinearProgress, Stack, Typography } from '@mui/material'
import { planApi, type PlanImport } from '@flimbo/core/plan'
import { Link as RouterLink } from 'react-router'
import { useChange } from '../api/index.ts'
import { number } from '@flimbo/core/formats'

/** How far an import is, and what came of it. */
export function ImportProgress({ file, refresh }: { file: PlanImport; refresh: () => void }) {
  const cancel = useChange(planApi.cancel)
  if (file.stage === 'running') {
    return (
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
        <Typography variant="body2" role="status" noWrap>
          {number(file.done)} of {number(file.total)} imported
        </Typography>
        <LinearProgress
          variant="determinate"
          aria-label="Importing"
          value={file.total === 0 ? 0 : (file.done / file.total) * 100}
          sx={{ flex: 1 }}
        />
        <Button
          color="inherit"
          onClick={() => {
            void cancel.mutateAsync({ params: { id: file.id } }).finally(refresh)
          }}
        >
          Cancel import
        </Button>
      </Stack>
    )
  }
  if (file.stage === 'done')
    return (
      <Alert
        severity="success"
        icon={false}
        variant="outlined"
        role="status"
        action={
          <Button component={RouterLink} to="../plan" color="inherit">
            Go to the plan
          </Button>
        }
      >
        {file.sentence}
      </Alert>
    )
  if (file.stage === 'failed')
    return (
      <Alert severity="error" variant="outlined">
        {file.sentence}
      </Alert>
    )
  if (file.stage === 'cancelled')
    return (
      <Alert severity="info" variant="outlined">
        {file.sentence}
      </Alert>
    )
  return null
}
