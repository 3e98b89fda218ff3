import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import {
  Alert,
  Box,
  Button,
  FormControlLabel,
  IconButton,
  MenuItem,
  Stack,
  Switch,
  TextField,
  Typography,
} from '@mui/material'
import {
  hitAddress,
  hitBody,
  KIND_NAMES,
  TAG_KINDS,
  visitTag,
  visitTagsApi,
  type Firing,
  type QueueRow,
  type TagKind,
  type VisitTag,
  type VisitValues,
} from '@flimbo/core/visitTags'
import { useChange } from '../api/index.ts'
import { quantity, moment, number } from '@flimbo/core/formats'
import { useSession } from '../session/index.ts'

const FIRINGS: readonly (readonly [Firing, string])[] = [
  ['page', 'on a light page on the way'],
  ['asked', 'on that page, once the visitor agrees'],
  ['server', 'from the server, after the redirect'],
]

/** Some visit, for showing what a hit looks like. */
const SAMPLE: VisitValues = {
  address: 'https://example.com/page?utm_source=poster',
  source: 'poster',
  medium: 'print',
  campaign: 'summer-26',
  term: '',
  content: 'a2',
  code: 'PIERWEST',
  country: 'DE',
  language: 'de',
  device: 'phone',
  time: '1782900000000',
  visit: '7b1fc0de',
}

interface Props {
  readonly tag: VisitTag
  readonly number: number
  readonly faultOf: (field: keyof VisitTag) => string | undefined
  readonly waiting: QueueRow | undefined
  readonly change: (part: Partial<VisitTag>) => void
  readonly remove: () => void
}

/** One tag: what it is, where its hits go and when; and what waits to be sent. */
export function VisitTagSheet({ tag, number: place, faultOf, waiting, change, remove }: Props) {
  const name = tag.name === '' ? `tag ${String(place)}` : tag.name
  const text = (field: 'name' | 'value' | 'address', label: string, width: number | string) => (
    <TextField
      size="small"
      label={label}
      value={tag[field]}
      sx={{ width }}
      error={faultOf(field) !== undefined}
      helperText={faultOf(field)}
      onChange={({ target }) => {
        change({ [field]: target.value })
      }}
    />
  )
  const isServer = tag.firing === 'server'
  return (
    <Box
      role="group"
      aria-label={`Tag ${String(place)}`}
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1.5, display: 'grid', gap: 1.5 }}
    >
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        {text('name', 'Name', 210)}
        <TextField
          select
          size="small"
          label="Kind"
          value={tag.kind}
          sx={{ width: 160 }}
          onChange={({ target }) => {
            const kind = target.value as TagKind
            change(kind !== 'measurement' && isServer ? { kind, firing: 'page', body: '' } : { kind })
          }}
        >
          {TAG_KINDS.map((kind) => (
            <MenuItem key={kind} value={kind}>
              {KIND_NAMES[kind]}
            </MenuItem>
          ))}
        </TextField>
        {text('value', 'Its ID', 160)}
        <TextField
          select
          size="small"
          label="Fires"
          value={tag.firing}
          sx={{ width: 290 }}
          error={faultOf('firing') !== undefined}
          helperText={faultOf('firing')}
          onChange={({ target }) => {
            const firing = target.value as Firing
            change(firing === 'server' ? { firing } : { firing, body: '' })
          }}
        >
          {FIRINGS.map(([firing, label]) => (
            <MenuItem
              key={firing}
              value={firing}
              disabled={firing === 'server' && tag.kind !== 'measurement'}
            >
              {label}
            </MenuItem>
          ))}
        </TextField>
        <FormControlLabel
          label="turned off"
          sx={{ minHeight: 40, ml: 0, gap: 0.5 }}
          control={
            <Switch
              size="small"
              checked={tag.resting}
              onChange={(_event, resting) => {
                change({ resting })
              }}
            />
          }
          slotProps={{ typography: { variant: 'body2' } }}
        />
        <IconButton aria-label={`Remove ${name}`} onClick={remove} sx={{ ml: 'auto' }}>
          <DeleteIcon fontSize="small" />
        </IconButton>
      </Stack>
      {text('address', tag.kind === 'container' ? 'Address of its script' : 'Address its hits go to', '100%')}
      {isServer && (
        <TextField
          size="small"
          multiline
          maxRows={8}
          label="Body to POST, as JSON (empty for a GET)"
          value={tag.body}
          error={faultOf('body') !== undefined}
          helperText={faultOf('body')}
          onChange={({ target }) => {
            change({ body: target.value })
          }}
        />
      )}
      <Example tag={tag} />
      {waiting && <Waiting row={waiting} name={name} />}
    </Box>
  )
}

/** What the collector would be sent of a scan, as far as the tag is finished. */
function Example({ tag }: { tag: VisitTag }) {
  const checked = visitTag.safeParse({ ...tag, name: 'x' })
  if (!checked.success) return null
  const body = hitBody(checked.data, SAMPLE)
  return (
    <Typography variant="body2" color="textSecondary" sx={{ overflowWrap: 'anywhere' }}>
      For example:{' '}
      <Typography component="span" variant="mono">
        {body === null ? 'GET' : 'POST'} {hitAddress(checked.data, SAMPLE)} {body}
      </Typography>
    </Typography>
  )
}

function Waiting({
  row: { tagId, waiting, givenUp, oldestAt, nextAt, fault },
  name,
}: {
  row: QueueRow
  name: string
}) {
  const {
    workspace: { zone },
  } = useSession()
  const again = useChange(visitTagsApi.sendAgain)
  const drop = useChange(visitTagsApi.drop)
  if (fault === '' && givenUp === 0)
    return (
      <Typography variant="body2" role="status">
        {quantity(waiting, 'hit')} on the way to the collector.
      </Typography>
    )
  return (
    <Alert
      severity="warning"
      variant="outlined"
      role="status"
      action={
        <>
          <Button
            color="inherit"
            disabled={again.isPending}
            aria-label={`Send the hits of ${name} again`}
            onClick={() => {
              again.mutate({ params: { tag: tagId } })
            }}
          >
            Send again now
          </Button>
          <Button
            color="inherit"
            disabled={drop.isPending}
            aria-label={`Delete the hits of ${name}`}
            onClick={() => {
              drop.mutate({ params: { tag: tagId } })
            }}
          >
            Discard
          </Button>
        </>
      }
    >
      {quantity(waiting + givenUp, 'hit')} kept since {moment(oldestAt, zone)}: {fault}.{' '}
      {nextAt === null ? 'They are not retried.' : `Tried again ${moment(nextAt, zone)}.`}
      {givenUp > 0 && waiting > 0 && ` ${number(givenUp)} are tried no more.`}
    </Alert>
  )
}
