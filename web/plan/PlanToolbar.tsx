import AddIcon from '@mui/icons-material/Add'
import UndoIcon from '@mui/icons-material/UndoOutlined'
import RedoIcon from '@mui/icons-material/RedoOutlined'
import { Button, IconButton, MenuItem, Stack, TextField, Tooltip, Typography } from '@mui/material'
import type { CodeFilter } from '@flimbo/core/codes'
import { quantity } from '@flimbo/core/formats'
import type { RefObject } from 'react'
import { ArrangeMenu } from './ArrangeMenu.tsx'
import { FilesMenu } from './FilesMenu.tsx'
import type { Edits } from './useEdits.ts'
import type { PlanData } from './usePlanData.ts'
import { ViewsMenu } from './ViewsMenu.tsx'

const SHOWN = { current: 'in the plan', archived: 'archived', deleted: 'deleted' } as const

interface Props {
  readonly plan: PlanData
  readonly edits: Edits
  readonly searchField: RefObject<HTMLInputElement | null>
  readonly add: () => void
  readonly addSeries: () => void
}

/** How the plan is arranged, narrowed and added to; one line at 1,280 px, with the inspector open too. */
export function PlanToolbar({ plan, edits, searchField, add, addSeries }: Props) {
  const { arrangement } = plan
  const { listing, narrowing, setNarrowing } = arrangement
  const statics = plan.statics.length
  return (
    <Stack direction="row" sx={{ gap: 1, alignItems: 'center', container: 'toolbar / inline-size' }}>
      <Typography variant="h1">Plan</Typography>
      <Typography color="textSecondary" sx={{ flex: 1, minWidth: 64 }} role="status" noWrap>
        {plan.blocks.total !== undefined &&
          [quantity(plan.total, 'piece'), statics > 0 && quantity(statics, 'static code')]
            .filter(Boolean)
            .join(', ')}
      </Typography>
      <Step title="Undo" keys="Ctrl Z" can={edits.canUndo} act={edits.undo} />
      <Step title="Redo" keys="Ctrl Y" can={edits.canRedo} act={edits.redo} />
      <ViewsMenu arrangement={arrangement} />
      <ArrangeMenu all={plan.columns} arrangement={arrangement} />
      <FilesMenu filter={listing.filter} addSeries={addSeries} />
      <TextField
        select
        size="small"
        value={narrowing.shown ?? 'current'}
        onChange={(event) => {
          setNarrowing({ ...narrowing, shown: event.target.value as CodeFilter['shown'] })
        }}
        slotProps={{ htmlInput: { 'aria-label': 'Which pieces' } }}
        sx={{ minWidth: 116, flexShrink: 0 }}
      >
        {Object.entries(SHOWN).map(([value, label]) => (
          <MenuItem key={value} value={value}>
            {label}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        size="small"
        inputRef={searchField}
        placeholder="Filter ( / )"
        value={plan.search}
        onChange={(event) => {
          plan.setSearch(event.target.value)
        }}
        sx={{ width: 140, minWidth: 84, flexShrink: 1 }}
        slotProps={{ htmlInput: { 'aria-label': 'Filter the pieces' } }}
      />
      <Button
        variant="contained"
        startIcon={<AddIcon />}
        onClick={add}
        sx={{ flexShrink: 0, whiteSpace: 'nowrap' }}
      >
        New piece
      </Button>
    </Stack>
  )
}

function Step({ title, keys, can, act }: { title: string; keys: string; can: boolean; act: () => void }) {
  return (
    <Tooltip title={`${title} (${keys})`}>
      <span>
        <IconButton size="small" aria-label={title} disabled={!can} onClick={act}>
          {title === 'Undo' ? <UndoIcon fontSize="small" /> : <RedoIcon fontSize="small" />}
        </IconButton>
      </span>
    </Tooltip>
  )
}
