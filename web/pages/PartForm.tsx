import ArrowDownIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpIcon from '@mui/icons-material/ArrowUpward'
import CopyIcon from '@mui/icons-material/ContentCopyOutlined'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import HiddenIcon from '@mui/icons-material/VisibilityOffOutlined'
import ShownIcon from '@mui/icons-material/VisibilityOutlined'
import { Box, Button, IconButton, Stack, Tooltip, Typography } from '@mui/material'
import { asksNothing, conditionInWords, EVERY_SCAN } from '@flimbo/core/conditions'
import { PART_FIELDS, PART_NAMES, type Part } from '@flimbo/core/pages'
import { useState, type ReactNode } from 'react'
import { asGroup, ConditionEditor } from '../conditions/index.ts'
import type { Editing } from './FieldInput.tsx'
import { FieldsInput } from './FieldsInput.tsx'

interface Props {
  readonly part: Part
  readonly at: number
  readonly count: number
  readonly zone: string
  readonly editing: Editing
  readonly change: (part: Part) => void
  readonly move: (to: number) => void
  readonly duplicate: () => void
  readonly remove: () => void
}

/** One part: what it says, and whom it is shown to. */
export function PartForm({ part, at, count, zone, editing, change, move, duplicate, remove }: Props) {
  const action = (name: string, icon: ReactNode, press: () => void, isOff = false) => (
    <Tooltip title={name}>
      <span>
        <IconButton size="small" aria-label={name} disabled={isOff} onClick={press}>
          {icon}
        </IconButton>
      </span>
    </Tooltip>
  )
  return (
    <Stack sx={{ gap: 2 }}>
      <Stack direction="row" sx={{ alignItems: 'center' }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {PART_NAMES[part.kind]}
        </Typography>
        {action(
          'Move up',
          <ArrowUpIcon fontSize="small" />,
          () => {
            move(at - 1)
          },
          at === 0,
        )}
        {action(
          'Move down',
          <ArrowDownIcon fontSize="small" />,
          () => {
            move(at + 1)
          },
          at === count - 1,
        )}
        {action('Duplicate', <CopyIcon fontSize="small" />, duplicate)}
        {action(
          part.isHidden ? 'Show' : 'Hide',
          part.isHidden ? <HiddenIcon fontSize="small" /> : <ShownIcon fontSize="small" />,
          () => {
            change({ ...part, isHidden: !part.isHidden })
          },
        )}
        {action('Remove', <DeleteIcon fontSize="small" />, remove)}
      </Stack>
      {part.isHidden && (
        <Typography variant="body2" color="textSecondary">
          Hidden: nobody is shown it.
        </Typography>
      )}
      <FieldsInput
        fields={PART_FIELDS[part.kind]}
        values={part as unknown as Record<string, unknown>}
        before=""
        editing={editing}
        change={(name, value) => {
          // The field is one of this part's own, and so is its value.
          change({ ...part, [name]: value })
        }}
      />
      <ShownTo part={part} zone={zone} change={change} />
    </Stack>
  )
}

/** Whom a part is shown to: the same conditions as those of lanes. */
function ShownTo({ part, zone, change }: Pick<Props, 'part' | 'zone' | 'change'>) {
  const { condition } = part
  const isForAll = asksNothing(condition)
  const [isOpen, setOpen] = useState(false)
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider', pt: 1.5 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
        <Typography variant="body2" sx={{ flex: 1 }}>
          {isForAll ? 'Shown to everybody.' : `Shown to: ${conditionInWords(condition)}`}
        </Typography>
        <Button
          size="small"
          aria-expanded={isOpen}
          onClick={() => {
            setOpen(!isOpen)
          }}
        >
          {isOpen ? 'Done' : 'Change'}
        </Button>
        {!isForAll && (
          <Button
            size="small"
            onClick={() => {
              change({ ...part, condition: EVERY_SCAN })
            }}
          >
            Show to everybody
          </Button>
        )}
      </Stack>
      {isOpen && (
        <Box sx={{ mt: 1 }}>
          <ConditionEditor
            group={asGroup(condition)}
            zone={zone}
            change={(group) => {
              change({ ...part, condition: group })
            }}
          />
        </Box>
      )}
    </Box>
  )
}
