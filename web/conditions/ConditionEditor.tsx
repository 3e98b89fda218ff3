import AddIcon from '@mui/icons-material/Add'
import CloseIcon from '@mui/icons-material/Close'
import {
  Box,
  Button,
  FormControlLabel,
  IconButton,
  Menu,
  MenuItem,
  Stack,
  Switch,
  Typography,
} from '@mui/material'
import { DEPTH_MAX, type Condition } from '@flimbo/core/conditions'
import { useState } from 'react'
import { isGroup, KINDS, type Group } from './kinds.ts'
import { LeafEditor } from './LeafEditor.tsx'
import { Pick } from './Pick.tsx'

const nameOf = (condition: Condition) => KINDS.find(({ kind }) => kind === condition.kind)?.name ?? 'Group'

/** Edits a condition as a group of parts, each of which may be turned round or be a group itself. */
export function ConditionEditor({
  group,
  zone,
  change,
  depth = 1,
}: {
  group: Group
  zone: string
  change: (group: Group) => void
  depth?: number
}) {
  const parts = group.of
  const setPart = (at: number, part: Condition) => {
    change({ ...group, of: parts.map((each, i) => (i === at ? part : each)) })
  }
  return (
    <Stack sx={{ gap: 1.5 }}>
      {parts.length > 1 && (
        <Pick
          label="Takes scans that meet"
          value={group.kind}
          choices={[
            ['all', 'all of these'],
            ['any', 'any of these'],
          ]}
          change={(kind) => {
            change({ ...group, kind: kind === 'any' ? 'any' : 'all' })
          }}
        />
      )}
      {parts.length === 0 && depth === 1 && (
        <Typography variant="body2" color="textSecondary">
          Every scan that gets here. Add a condition to take only some.
        </Typography>
      )}
      {parts.map((part, i) => (
        <Part
          key={i}
          part={part}
          zone={zone}
          depth={depth}
          change={(next) => {
            setPart(i, next)
          }}
          remove={() => {
            change({ ...group, of: parts.filter((_each, at) => at !== i) })
          }}
        />
      ))}
      <AddPart
        zone={zone}
        mayNest={depth < DEPTH_MAX - 2}
        add={(part) => {
          change({ ...group, of: [...parts, part] })
        }}
      />
    </Stack>
  )
}

function Part({
  part,
  zone,
  depth,
  change,
  remove,
}: {
  part: Condition
  zone: string
  depth: number
  change: (part: Condition) => void
  remove: () => void
}) {
  const isTurned = part.kind === 'not'
  const inner = part.kind === 'not' ? part.of : part
  const set = (next: Condition) => {
    change(isTurned ? { kind: 'not', of: next } : next)
  }
  return (
    <Box
      role="group"
      aria-label={nameOf(inner)}
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1 }}
    >
      <Stack direction="row" sx={{ alignItems: 'center', mb: 0.75 }}>
        <Typography variant="h3" sx={{ flex: 1 }}>
          {nameOf(inner)}
        </Typography>
        <FormControlLabel
          label="not"
          control={
            <Switch
              size="small"
              checked={isTurned}
              onChange={(_event, on) => {
                change(on ? { kind: 'not', of: inner } : inner)
              }}
            />
          }
          slotProps={{ typography: { variant: 'body2' } }}
        />
        <IconButton size="small" aria-label={`Remove the condition ${nameOf(inner)}`} onClick={remove}>
          <CloseIcon fontSize="inherit" />
        </IconButton>
      </Stack>
      {isGroup(inner) && <ConditionEditor group={inner} zone={zone} depth={depth + 1} change={set} />}
      {inner.kind !== 'not' && !isGroup(inner) && <LeafEditor leaf={inner} change={set} />}
    </Box>
  )
}

function AddPart({ zone, mayNest, add }: { zone: string; mayNest: boolean; add: (part: Condition) => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const choose = (part: Condition) => {
    setAnchor(null)
    add(part)
  }
  return (
    <>
      <Button
        startIcon={<AddIcon />}
        onClick={(event) => {
          setAnchor(event.currentTarget)
        }}
        aria-haspopup="menu"
        sx={{ alignSelf: 'flex-start' }}
      >
        Add condition
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => {
          setAnchor(null)
        }}
      >
        {KINDS.map(({ kind, name, fresh }) => (
          <MenuItem
            key={kind}
            dense
            onClick={() => {
              choose(fresh(zone))
            }}
          >
            {name}
          </MenuItem>
        ))}
        {mayNest && (
          <MenuItem
            dense
            divider
            onClick={() => {
              choose({ kind: 'any', of: [] })
            }}
          >
            A group of conditions
          </MenuItem>
        )}
      </Menu>
    </>
  )
}
