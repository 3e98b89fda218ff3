import AddIcon from '@mui/icons-material/Add'
import ArrowDownIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpIcon from '@mui/icons-material/ArrowUpward'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import {
  Button,
  IconButton,
  MenuItem,
  Skeleton,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import {
  CHANNEL_FIELDS,
  CHANNEL_TESTS,
  channelOf,
  channelRules,
  taggingApi,
  USUAL_CHANNELS,
  type ChannelCondition,
  type ChannelRule,
} from '@flimbo/core/tagging'
import { useState } from 'react'
import { Sheet, Trouble } from '../ui/index.ts'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'

const TEST_NAMES = { is: 'is', contains: 'contains', begins: 'begins with', ends: 'ends with' } as const

/** The ordered table that sorts visits into channels, as analytics suites do it: the first line that holds decides. */
export function ChannelTable() {
  const setting = useSetting<ChannelRule[]>(taggingApi.channels, taggingApi.changeChannels, channelRules)
  const { value } = setting
  if (setting.answer.isError) return <Trouble error={setting.answer.error} />
  if (!value) return <Skeleton variant="rounded" height={420} />
  const put = (at: number, rule: ChannelRule) => {
    setting.set(value.map((each, i) => (i === at ? rule : each)))
  }
  const swap = (at: number, by: number) => {
    const next = [...value]
    const [moved] = next.splice(at, 1)
    if (moved) next.splice(at + by, 0, moved)
    setting.set(next)
  }
  return (
    <>
      <Sheet
        title="Channels"
        aside={
          <Button
            color="inherit"
            onClick={() => {
              setting.set([...USUAL_CHANNELS])
            }}
          >
            The usual table
          </Button>
        }
      >
        <Stack spacing={2}>
          <Typography variant="body2" color="textSecondary">
            A visit falls in the channel of the first line whose conditions all hold; one that no line takes
            is “unassigned”. Put the lines for print into your analytics as well: their own tables know none.
          </Typography>
          <Table size="small" aria-label="Channel table">
            <TableHead>
              <TableRow>
                <TableCell sx={{ width: 40 }}>#</TableCell>
                <TableCell sx={{ width: 190 }}>Channel</TableCell>
                <TableCell>When</TableCell>
                <TableCell sx={{ width: 120 }} />
              </TableRow>
            </TableHead>
            <TableBody>
              {value.map((rule, i) => (
                <TableRow key={i} sx={{ verticalAlign: 'top' }}>
                  <TableCell>{i + 1}</TableCell>
                  <TableCell>
                    <TextField
                      size="small"
                      value={rule.channel}
                      onChange={(event) => {
                        put(i, { ...rule, channel: event.target.value })
                      }}
                      slotProps={{ htmlInput: { 'aria-label': `Channel of line ${String(i + 1)}` } }}
                      error={setting.faultOf(`${String(i)}.channel`) !== undefined}
                    />
                  </TableCell>
                  <TableCell>
                    <Stack spacing={1}>
                      {rule.when.map((condition, j) => (
                        <Condition
                          key={j}
                          line={i + 1}
                          condition={condition}
                          only={rule.when.length === 1}
                          put={(next) => {
                            put(i, {
                              ...rule,
                              when: rule.when.flatMap((each, k) => (k !== j ? each : (next ?? []))),
                            })
                          }}
                        />
                      ))}
                      {rule.when.length < 5 && (
                        <Button
                          size="small"
                          sx={{ alignSelf: 'flex-start' }}
                          onClick={() => {
                            put(i, {
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
                      aria-label={`Line ${String(i + 1)} up`}
                      disabled={i === 0}
                      onClick={() => {
                        swap(i, -1)
                      }}
                    >
                      <ArrowUpIcon fontSize="small" />
                    </IconButton>
                    <IconButton
                      size="small"
                      aria-label={`Line ${String(i + 1)} down`}
                      disabled={i === value.length - 1}
                      onClick={() => {
                        swap(i, 1)
                      }}
                    >
                      <ArrowDownIcon fontSize="small" />
                    </IconButton>
                    <IconButton
                      size="small"
                      aria-label={`Remove line ${String(i + 1)}`}
                      onClick={() => {
                        setting.set(value.filter((_each, j) => j !== i))
                      }}
                    >
                      <DeleteIcon fontSize="small" />
                    </IconButton>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
          <Button
            startIcon={<AddIcon />}
            sx={{ alignSelf: 'flex-start' }}
            onClick={() => {
              setting.set([...value, { channel: '', when: [{ field: 'medium', test: 'is', values: [''] }] }])
            }}
          >
            Add line
          </Button>
          <SaveBar setting={setting} />
        </Stack>
      </Sheet>
      <TryIt rules={value} />
    </>
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

/** Where a visit with given tags would fall, under the table as it stands on the screen. */
function TryIt({ rules }: { rules: readonly ChannelRule[] }) {
  const [tags, setTags] = useState({ medium: 'print', source: 'pier-poster', campaign: '' })
  const channel = channelOf(tags, rules)
  return (
    <Sheet title="Test the table">
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        {CHANNEL_FIELDS.map((field) => (
          <TextField
            key={field}
            size="small"
            label={field}
            value={tags[field]}
            onChange={(event) => {
              setTags({ ...tags, [field]: event.target.value })
            }}
          />
        ))}
        <Typography role="status">
          falls in <strong>{channel === '' ? 'no channel: unassigned' : channel}</strong>
        </Typography>
      </Stack>
    </Sheet>
  )
}
