import AddIcon from '@mui/icons-material/Add'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import {
  Button,
  Checkbox,
  FormControlLabel,
  IconButton,
  MenuItem,
  Skeleton,
  Stack,
  Switch,
  TextField,
  Typography,
} from '@mui/material'
import {
  fillPattern,
  houseRules,
  PATTERN_FIELDS,
  patternFault,
  taggingApi,
  tidied,
  type HouseRules,
} from '@flimbo/core/tagging'
import { Sheet, Trouble } from '../ui/index.ts'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'

const SAMPLE = {
  name: 'Pier poster, west',
  place: 'Ferry pier, west gate',
  size: 60,
  medium: 'print',
  source: 'pier-poster',
  term: '',
  reference: 'SL-1101',
  key: 'A-17',
  route: 'Timetable page',
  campaign: 'summer-26',
  link: 'PIERWEST',
}

/** How this workspace writes its tags: the linter, the form and imports all go by it. */
export function HouseRulesForm() {
  const setting = useSetting<HouseRules>(taggingApi.rules, taggingApi.changeRules, houseRules)
  const { value } = setting
  if (setting.answer.isError) return <Trouble error={setting.answer.error} />
  if (!value) return <Skeleton variant="rounded" height={420} />
  const change = (part: Partial<HouseRules>) => {
    setting.set({ ...value, ...part })
  }
  const pattern = value.contentPattern
  const fault = patternFault(pattern)
  return (
    <Sheet title="House rules for tags">
      <Stack spacing={2.5}>
        <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap' }}>
          <TextField
            select
            size="small"
            label="Letter case"
            value={value.letterCase}
            onChange={(event) => {
              change({ letterCase: event.target.value as HouseRules['letterCase'] })
            }}
            sx={{ minWidth: 200 }}
          >
            <MenuItem value="lower">small letters only</MenuItem>
            <MenuItem value="any">as they come</MenuItem>
          </TextField>
          <TextField
            select
            size="small"
            label="Word separator"
            value={value.separator}
            onChange={(event) => {
              change({ separator: event.target.value as HouseRules['separator'] })
            }}
            sx={{ minWidth: 200 }}
          >
            <MenuItem value="-">a dash: pier-poster</MenuItem>
            <MenuItem value="_">an underscore: pier_poster</MenuItem>
            <MenuItem value="any">either</MenuItem>
          </TextField>
        </Stack>
        <Stack direction="row" sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <TextField
            size="small"
            multiline
            minRows={2}
            maxRows={10}
            label="Media that may be used, one a line"
            value={value.media.join('\n')}
            sx={{ width: 320 }}
            helperText="Empty: every medium may be used."
            onChange={(event) => {
              change({ media: event.target.value === '' ? [] : event.target.value.split('\n') })
            }}
          />
          <TextField
            select
            size="small"
            label="A medium that is not listed"
            value={value.offList}
            disabled={value.media.length === 0}
            onChange={(event) => {
              change({ offList: event.target.value as HouseRules['offList'] })
            }}
            sx={{ minWidth: 220 }}
          >
            <MenuItem value="warn">is taken, with a warning</MenuItem>
            <MenuItem value="refuse">is refused</MenuItem>
          </TextField>
        </Stack>
        <Stack direction="row" role="group" aria-label="Required beside medium, source and campaign">
          {(['content', 'term'] as const).map((field) => (
            <FormControlLabel
              key={field}
              label={`Every piece needs a ${field}`}
              control={
                <Checkbox
                  checked={value.required.includes(field)}
                  onChange={(_event, on) => {
                    change({
                      required: on
                        ? [...value.required, field]
                        : value.required.filter((each) => each !== field),
                    })
                  }}
                />
              }
            />
          ))}
        </Stack>
        <TextField
          size="small"
          label="Content is made of"
          value={pattern}
          onChange={(event) => {
            change({ contentPattern: event.target.value })
          }}
          placeholder="{place}-{size}"
          error={fault !== null}
          sx={{ maxWidth: 560 }}
          helperText={
            fault ??
            (pattern === ''
              ? `Empty: content is written by hand. Fields: ${PATTERN_FIELDS.map((field) => `{${field}}`).join(' ')}`
              : `For example: ${tidied(fillPattern(pattern, SAMPLE), value)}`)
          }
        />
        <Stack spacing={1}>
          <Typography variant="h3">Parameters of your own</Typography>
          <Typography variant="body2" color="textSecondary">
            Every piece may carry them beside the UTM ones.
          </Typography>
          {value.parameters.map((parameter, i) => {
            const put = (part: Partial<typeof parameter>) => {
              change({
                parameters: value.parameters.map((each, j) => (j === i ? { ...each, ...part } : each)),
              })
            }
            return (
              <Stack key={i} direction="row" sx={{ gap: 1, alignItems: 'center' }}>
                <TextField
                  size="small"
                  label="Name in the address"
                  value={parameter.name}
                  onChange={(event) => {
                    put({ name: event.target.value })
                  }}
                  error={setting.faultOf(`parameters.${String(i)}.name`) !== undefined}
                />
                <TextField
                  size="small"
                  label="Label"
                  value={parameter.label}
                  onChange={(event) => {
                    put({ label: event.target.value })
                  }}
                  error={setting.faultOf(`parameters.${String(i)}.label`) !== undefined}
                />
                <FormControlLabel
                  label="required"
                  control={
                    <Switch
                      checked={parameter.required}
                      onChange={(_event, on) => {
                        put({ required: on })
                      }}
                    />
                  }
                />
                <IconButton
                  aria-label={`Remove ${parameter.name || 'this parameter'}`}
                  onClick={() => {
                    change({ parameters: value.parameters.filter((_each, j) => j !== i) })
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
            disabled={value.parameters.length >= 10}
            onClick={() => {
              change({ parameters: [...value.parameters, { name: '', label: '', required: false }] })
            }}
          >
            Add parameter
          </Button>
        </Stack>
        <SaveBar setting={setting} />
      </Stack>
    </Sheet>
  )
}
