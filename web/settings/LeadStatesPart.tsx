import AddIcon from '@mui/icons-material/Add'
import DownIcon from '@mui/icons-material/ArrowDownward'
import UpIcon from '@mui/icons-material/ArrowUpward'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Button, IconButton, Skeleton, Stack, TextField, Typography } from '@mui/material'
import { leadsApi, leadStates, NEW_STATE, type LeadStateRow, type LeadStates } from '@flimbo/core/leads'
import { Sheet, swap, Trouble } from '../ui/index.ts'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'

function freshState(states: readonly LeadStateRow[]): LeadStateRow {
  const taken = new Set(states.map(({ key }) => key))
  for (let n = 1; ; n++) if (!taken.has(`state${String(n)}`)) return { key: `state${String(n)}`, name: '' }
}

/** Where the office can stand with somebody who answered: the workspace's own list. */
export function LeadStatesPart() {
  const setting = useSetting<LeadStates>(leadsApi.states, leadsApi.changeStates, leadStates)
  const { value } = setting
  if (setting.answer.isError) return <Trouble error={setting.answer.error} />
  if (!value) return <Skeleton variant="rounded" height={240} />
  const { states } = value
  const set = (next: readonly LeadStateRow[]) => {
    setting.set({ states: [...next] })
  }
  return (
    <Sheet title="States of leads">
      <Stack spacing={1.5} sx={{ maxWidth: 560 }}>
        <Typography variant="body2" color="textSecondary">
          Whoever answers a form is in the first one. A state that leads are in is not removed.
        </Typography>
        {states.map(({ key, name }, i) => {
          const fault = setting.faultOf(`states.${String(i)}.name`)
          const isFirst = key === NEW_STATE
          return (
            <Stack key={key} direction="row" sx={{ gap: 1, alignItems: 'flex-start' }}>
              <TextField
                size="small"
                fullWidth
                label={`State ${String(i + 1)}`}
                value={name}
                error={fault !== undefined}
                helperText={fault}
                onChange={({ target }) => {
                  set(states.map((each) => (each.key === key ? { key, name: target.value } : each)))
                }}
              />
              <IconButton
                aria-label={`Move ${name} up`}
                disabled={i < 2}
                onClick={() => {
                  set(swap(states, i, i - 1))
                }}
              >
                <UpIcon fontSize="small" />
              </IconButton>
              <IconButton
                aria-label={`Move ${name} down`}
                disabled={isFirst || i === states.length - 1}
                onClick={() => {
                  set(swap(states, i, i + 1))
                }}
              >
                <DownIcon fontSize="small" />
              </IconButton>
              <IconButton
                aria-label={`Remove ${name}`}
                disabled={isFirst}
                onClick={() => {
                  set(states.filter((each) => each.key !== key))
                }}
              >
                <DeleteIcon fontSize="small" />
              </IconButton>
            </Stack>
          )
        })}
        <Button
          startIcon={<AddIcon />}
          sx={{ alignSelf: 'flex-start' }}
          onClick={() => {
            set([...states, freshState(states)])
          }}
        >
          Add state
        </Button>
        <SaveBar setting={setting} />
      </Stack>
    </Sheet>
  )
}
