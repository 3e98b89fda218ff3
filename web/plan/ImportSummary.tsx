import { Button, Stack, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import type { PlanImport } from '@flimbo/core/plan'
import { Sheet } from '../ui/index.ts'
import { ImportProgress } from './ImportProgress.tsx'

interface Props {
  readonly file: PlanImport
  readonly isReady: boolean
  readonly begin: (lines: 'all' | 'good') => Promise<void>
  readonly refresh: () => void
}

/** What the lines of a file would do all together, and the way to let them. */
export function ImportSummary({ file, isReady, begin, refresh }: Props) {
  const { counts, fileName, stage } = file
  const useful = counts.create + counts.change
  return (
    <Sheet
      title={`${fileName}: ${quantity(counts.create, 'piece')} to create, ${String(counts.change)} to change, ${String(counts.same)} the same, ${String(counts.refuse)} refused`}
      aside={
        isReady && (
          <Stack direction="row" spacing={1}>
            {counts.refuse > 0 && useful > 0 && (
              <Button
                variant="outlined"
                onClick={() => {
                  void begin('good')
                }}
              >
                Import the good lines only
              </Button>
            )}
            <Button
              variant="contained"
              disabled={counts.refuse > 0 || useful === 0}
              onClick={() => {
                void begin('all')
              }}
            >
              Import everything
            </Button>
          </Stack>
        )
      }
    >
      {stage === 'ready' && useful === 0 && <Typography>Nothing here would change the plan.</Typography>}
      {stage === 'ready' && counts.refuse > 0 && (
        <Typography variant="body2">
          Everything goes in only once no line is refused. Correct the file, say below what its columns stand
          for, or leave the refused lines out.
        </Typography>
      )}
      {stage === 'ready' && counts.refuse === 0 && useful > 0 && (
        <Typography variant="body2">
          {counts.warned > 0
            ? `${quantity(counts.warned, 'line')} can be imported but has warnings.`
            : 'Every line is good.'}
        </Typography>
      )}
      <ImportProgress file={file} refresh={refresh} />
    </Sheet>
  )
}
