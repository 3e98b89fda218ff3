import AddIcon from '@mui/icons-material/Add'
import {
  Button,
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
  channelOf,
  channelRules,
  taggingApi,
  DEFAULT_CHANNELS,
  type ChannelRule,
} from '@flimbo/core/tagging'
import { useState } from 'react'
import { Sheet, Trouble } from '../ui/index.ts'
import { ChannelLine } from './ChannelLine.tsx'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'

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
              setting.set([...DEFAULT_CHANNELS])
            }}
          >
            Restore default
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
                <ChannelLine
                  key={i}
                  rule={rule}
                  line={i + 1}
                  isFirst={i === 0}
                  isLast={i === value.length - 1}
                  isWrong={setting.faultOf(`${String(i)}.channel`) !== undefined}
                  change={(next) => {
                    put(i, next)
                  }}
                  move={(by) => {
                    swap(i, by)
                  }}
                  remove={() => {
                    setting.set(value.filter((_each, j) => j !== i))
                  }}
                />
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
