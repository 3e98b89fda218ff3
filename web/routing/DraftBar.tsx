import { Box, Button, Stack, Typography } from '@mui/material'
import { routesApi } from '@flimbo/core/routing'
import { useChange } from '../api/index.ts'
import { Conflict } from '../ui/index.ts'
import type { DraftState } from './useDraft.ts'

function stateInWords({ isPrepared, isKept }: DraftState): string {
  if (!isPrepared) return 'Live for every scan.'
  return isKept ? 'Draft saved, not live yet.' : 'Saving…'
}

/** Whether what is shown is live or a draft, and what can be done about it. */
export function DraftBar({
  routeId,
  state,
  discarded,
  publish,
}: {
  routeId: number
  state: DraftState
  discarded: () => void
  publish: () => void
}) {
  const dropDraft = useChange(routesApi.dropDraft)
  return (
    <>
      <Stack
        direction="row"
        sx={{
          alignItems: 'center',
          gap: 1,
          px: 2,
          py: 1,
          borderBottom: 1,
          borderColor: 'divider',
          bgcolor: state.isPrepared ? 'action.hover' : undefined,
          flexWrap: 'wrap',
        }}
      >
        <Typography variant="body2" role="status" sx={{ flex: 1, minWidth: 160 }}>
          {state.fault === null ? (
            stateInWords(state)
          ) : (
            <Box component="span" sx={{ color: 'error.main' }}>
              Not saved yet: {state.fault}
            </Box>
          )}
        </Typography>
        {state.undo && (
          <Button color="inherit" onClick={state.undo}>
            Undo
          </Button>
        )}
        {state.isPrepared && state.isKept && (
          <Button
            color="inherit"
            onClick={() => {
              dropDraft.mutate({ params: { id: routeId } })
              discarded()
            }}
          >
            Discard draft
          </Button>
        )}
        <Button
          variant="contained"
          disabled={!state.isPrepared || !state.isKept || state.fault !== null}
          onClick={publish}
        >
          Publish…
        </Button>
      </Stack>
      {state.isOvertaken && (
        <Box sx={{ p: 1 }}>
          <Conflict what="draft" keepStored={state.keepStored} overwrite={state.overwrite} />
        </Box>
      )}
    </>
  )
}
