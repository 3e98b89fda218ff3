import AddIcon from '@mui/icons-material/Add'
import { Alert, Box, Button, Stack, TextField, Typography } from '@mui/material'
import { whoInWords } from '@flimbo/core/conditions'
import { quantity } from '@flimbo/core/formats'
import { laneSetsApi, outcomeInWords, type Lane, type LaneSet } from '@flimbo/core/routing'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { Conflict, Sheet } from '../ui/index.ts'
import { LaneInspector } from './LaneInspector.tsx'
import { Track } from './Track.tsx'
import { useLaneSetDraft, type LaneSetDraft } from './useLaneSetDraft.ts'
import { useNames } from './useNames.ts'

const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone

/** One set of shared lanes, what a change of it changes, and the lane that is inspected. */
export function LaneSetEditor({ set }: { set: LaneSet }) {
  const draft = useLaneSetDraft(set)
  const { own, lanes } = draft
  const [inspected, inspect] = useState<string | null>(null)
  const lane = inspected === null ? undefined : own.find(inspected)
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'flex-start', minWidth: 0 }}>
      <Stack sx={{ flex: 1, minWidth: 0, gap: 2 }}>
        <Sheet
          title={set.name}
          pad={false}
          aside={
            <Button
              startIcon={<AddIcon />}
              variant="outlined"
              onClick={() => {
                inspect(own.add())
              }}
            >
              Add lane
            </Button>
          }
        >
          <Box sx={{ p: 2 }}>
            <TextField
              size="small"
              label="Name of the set"
              value={draft.name}
              onChange={({ target }) => {
                draft.rename(target.value)
              }}
              fullWidth
            />
          </Box>
          {lanes.map((each, i) => (
            <SharedLane
              key={each.id}
              lane={each}
              at={i}
              draft={draft}
              isInspected={each.id === inspected}
              inspect={inspect}
            />
          ))}
        </Sheet>
        <Effect set={set} draft={draft} />
      </Stack>
      {lane && (
        <Box sx={{ flexShrink: 0, border: 1, borderColor: 'divider', borderRadius: 1, overflow: 'hidden' }}>
          <LaneInspector
            lane={lane}
            place={lanes.indexOf(lane) + 1}
            zone={ZONE}
            others={[]}
            rows={null}
            close={() => {
              inspect(null)
            }}
            copy={() => {
              inspect(own.add(lane))
            }}
            change={own.change}
            remove={() => {
              own.remove(lane.id)
              inspect(null)
            }}
          />
        </Box>
      )}
    </Box>
  )
}

function SharedLane({
  lane,
  at,
  draft: { lanes, move },
  isInspected,
  inspect,
}: {
  lane: Lane
  at: number
  draft: LaneSetDraft
  isInspected: boolean
  inspect: (id: string) => void
}) {
  const names = useNames()
  return (
    <Track
      place={String(at + 1)}
      sentence={lane.name === '' ? whoInWords(lane.condition) : lane.name}
      aside={lane.resting ? 'turned off: takes no scan' : undefined}
      leads={outcomeInWords(lane.outcome, names)}
      scans={null}
      all={0}
      isLit={false}
      isChosen={isInspected}
      isResting={lane.resting}
      isLast={at === lanes.length - 1}
      choose={() => {
        inspect(lane.id)
      }}
      onKeyDown={(event) => {
        const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined
        if (by === undefined) return
        event.preventDefault()
        move(at, at + by)
      }}
    />
  )
}

/** Which routes a save changes, and the save. */
function Effect({ set, draft }: { set: LaneSet; draft: LaneSetDraft }) {
  const remove = useChange(laneSetsApi.remove)
  const trouble = remove.error ? sentenceOf(remove.error, 'The set could not be deleted.') : draft.trouble
  return (
    <Sheet title="Where it is used">
      {set.routes.length === 0 ? (
        <Typography>No route uses this set. Choose it under “Shared lanes” on a route.</Typography>
      ) : (
        <>
          <Typography>Saving changes {quantity(set.routes.length, 'route')} at once:</Typography>
          <Box component="ul" aria-label="Routes that use it" sx={{ m: 0 }}>
            {set.routes.map((route) => (
              <li key={route.id}>
                {route.campaignName}: {route.name}
              </li>
            ))}
          </Box>
        </>
      )}
      {draft.isOvertaken && (
        <Box sx={{ mt: 1 }}>
          <Conflict
            what="set of lanes"
            keepStored={draft.reset}
            overwrite={() => {
              void draft.overwrite()
            }}
          />
        </Box>
      )}
      {trouble !== null && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1 }}>
          {trouble}
        </Alert>
      )}
      <Stack direction="row" sx={{ gap: 1, mt: 2 }}>
        <Button
          variant="contained"
          disabled={!draft.isChanged || draft.isSaving}
          onClick={() => {
            void draft.save()
          }}
        >
          {set.routes.length === 0 ? 'Save' : `Save for ${quantity(set.routes.length, 'route')}`}
        </Button>
        {draft.isChanged && (
          <Button color="inherit" onClick={draft.reset}>
            Discard changes
          </Button>
        )}
        <Box sx={{ flex: 1 }} />
        <Button
          color="error"
          disabled={remove.isPending}
          onClick={() => {
            remove.mutate({ params: { id: set.id } })
          }}
        >
          Delete set
        </Button>
      </Stack>
    </Sheet>
  )
}
