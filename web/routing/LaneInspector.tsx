import { Button, FormControlLabel, Stack, Switch, TextField, Typography } from '@mui/material'
import { whoInWords } from '@flimbo/core/conditions'
import type { ReactNode } from 'react'
import type { Lane, RouteName } from '@flimbo/core/routing'
import { asGroup, ConditionEditor } from '../conditions/index.ts'
import { Inspector } from '../ui/index.ts'
import { OutcomeEditor } from './OutcomeEditor.tsx'

interface Props {
  readonly lane: Lane
  readonly place: number
  readonly zone: string
  readonly others: readonly RouteName[]
  /** The way to the scans behind its figure. */
  readonly rows: ReactNode
  readonly change: (lane: Lane) => void
  readonly remove: () => void
  readonly copy: () => void
  readonly close: () => void
}

/** One lane: which scans it takes and what it does with them. Every edit goes to the draft. */
export function LaneInspector({ lane, place, zone, others, rows, change, remove, copy, close }: Props) {
  return (
    <Inspector title={`Lane ${String(place)}`} close={close}>
      <Stack sx={{ gap: 2 }}>
        <Typography aria-live="polite">{whoInWords(lane.condition)}</Typography>
        {rows}
        <TextField
          size="small"
          label="Name (optional)"
          value={lane.name}
          onChange={({ target }) => {
            change({ ...lane, name: target.value })
          }}
        />
        <Typography variant="h3">Takes</Typography>
        <ConditionEditor
          group={asGroup(lane.condition)}
          zone={zone}
          change={(condition) => {
            change({ ...lane, condition })
          }}
        />
        <Typography variant="h3">Leads to</Typography>
        <OutcomeEditor
          lane={lane}
          others={others}
          change={(outcome) => {
            change({ ...lane, outcome })
          }}
        />
        <FormControlLabel
          label="Turned off: stays here and takes no scan"
          control={
            <Switch
              size="small"
              checked={lane.resting}
              onChange={(_event, resting) => {
                change({ ...lane, resting })
              }}
            />
          }
        />
        <Stack direction="row" sx={{ gap: 1 }}>
          <Button color="inherit" variant="outlined" onClick={copy}>
            Duplicate
          </Button>
          <Button color="error" variant="outlined" onClick={remove}>
            Remove lane
          </Button>
        </Stack>
      </Stack>
    </Inspector>
  )
}
