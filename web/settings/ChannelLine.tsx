import ArrowDownIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpIcon from '@mui/icons-material/ArrowUpward'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Button, IconButton, MenuItem, Stack, TableCell, TableRow, TextField } from '@mui/material'
import { CHANNEL_FIELDS, CHANNEL_TESTS, type ChannelCondition, type ChannelRule } from '@flimbo/core/tagging'
import { useState } from 'react'

const TEST_NAMES = { is: 'is', contains: 'contains', begins: 'begins with', ends: 'ends with' } as const

const CONDITIONS_MAX = 5

interface Props {
  readonly rule: ChannelRule
  /** Its place in the table, from 1. */
  readonly line: number
  readonly isFirst: boolean
  readonly isLast: boolean
  readonly isWrong: boolean
  readonly change: (rule: ChannelRule) => void
  readonly move: (by: number) => void
  readonly remove: () => void
}

/** One line of the channel table: a channel, and the conditions that must all hold. */
export function ChannelLine({ rule, line, isFirst, isLast, isWrong, change, move, remove }: Props) {
  return (
    <TableRow sx={{ verticalAlign: 'top' }}>
      <TableCell>{line}</TableCell>
      <TableCell>
        <TextField
          size="small"
          value={rule.channel}
          onChange={(event) => {
            change({ ...rule, channel: event.target.value })
          }}
          slotProps={{ htmlInput: { 'aria-label': `Channel of line ${String(line)}` } }}
          error={isWrong}
        />
      </TableCell>
      <TableCell>
        <Stack spacing={1}>
          {rule.when.map((condition, j) => (
            <Condition
              key={j}
              line={line}
              condition={condition}
              only={rule.when.length === 1}
              put={(next) => {
                change({
                  ...rule,
                  when: rule.when.flatMap((each, k) => (k !== j ? each : (next ?? []))),
                })
              }}
            />
          ))}
          {rule.when.length < CONDITIONS_MAX && (
            <Button
              size="small"
              sx={{ alignSelf: 'flex-start' }}
              onClick={() => {
                change({
                  ...rule,
                  when: [...rule.when, { field: 'source', test: 'is', values: [''] }],
                })
              }}
            >
              and …
            </Button>
          )}
        </Stack>
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>
        <IconButton
          size="small"
          aria-label={`Line ${String(line)} up`}
          disabled={isFirst}
          onClick={() => {
            move(-1)
          }}
        >
          <ArrowUpIcon fontSize="small" />
        </IconButton>
        <IconButton
          size="small"
          aria-label={`Line ${String(line)} down`}
          disabled={isLast}
          onClick={() => {
            move(1)
          }}
        >
          <ArrowDownIcon fontSize="small" />
        </IconButton>
        <IconButton size="small" aria-label={`Remove line ${String(line)}`} onClick={remove}>
          <DeleteIcon fontSize="small" />
        </IconButton>
      </TableCell>
    </TableRow>
  )
}

/** One condition; its values are written with commas between them. `put` with null takes it out. */
function Condition({
  line,
  condition,
  only,
  put,
}: {
  line: number
  condition: ChannelCondition
  only: boolean
  put: (next: ChannelCondition | null) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const name = (what: string) => ({ htmlInput: { 'aria-label': `${what} of line ${String(line)}` } })
  return (
    <Stack direction="row" sx={{ gap: 1 }}>
      <TextField
        select
        size="small"
        value={condition.field}
        onChange={(event) => {
          put({ ...condition, field: event.target.value as ChannelCondition['field'] })
        }}
        sx={{ width: 130, flexShrink: 0 }}
        slotProps={name('Field')}
      >
        {CHANNEL_FIELDS.map((each) => (
          <MenuItem key={each} value={each}>
            {each}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        size="small"
        value={condition.test}
        onChange={(event) => {
          put({ ...condition, test: event.target.value as ChannelCondition['test'] })
        }}
        sx={{ width: 130, flexShrink: 0 }}
        slotProps={name('Test')}
      >
        {CHANNEL_TESTS.map((each) => (
          <MenuItem key={each} value={each}>
            {TEST_NAMES[each]}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        size="small"
        fullWidth
        value={typed ?? condition.values.join(', ')}
        slotProps={name('Values')}
        onBlur={() => {
          setTyped(null)
        }}
        onChange={(event) => {
          setTyped(event.target.value)
          put({
            ...condition,
            values: event.target.value
              .split(',')
              .map((each) => each.trim())
              .filter((each, i, all) => each !== '' || all.length === 1),
          })
        }}
      />
      {!only && (
        <IconButton
          size="small"
          aria-label={`Remove this condition of line ${String(line)}`}
          onClick={() => {
            put(null)
          }}
        >
          <DeleteIcon fontSize="small" />
        </IconButton>
      )}
    </Stack>
  )
}
