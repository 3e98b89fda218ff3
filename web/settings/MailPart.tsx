import {
  Button,
  Link,
  MenuItem,
  Pagination,
  Skeleton,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import {
  MAIL_KIND_NAMES,
  MAIL_STATE_NAMES,
  MAIL_STATES,
  mailApi,
  type Mail,
  type MailSetup,
  type MailState,
} from '@flimbo/core/mail'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { Fault, Sheet, Trouble, When } from '../ui/index.ts'
import { MailStandIn } from './MailStandIn.tsx'

const PAGE_SIZE = 50

/** How mail is sent, and what became of each. */
export function MailPart() {
  const setup = useAnswer(mailApi.setup, {})
  if (setup.isError) return <Trouble error={setup.error} />
  if (!setup.data) return <Skeleton variant="rounded" height={240} />
  return (
    <>
      <Server setup={setup.data} />
      <MailList counts={setup.data.counts} />
      {setup.data.server?.isStandIn && <MailStandIn />}
    </>
  )
}

function serverInWords({ server }: MailSetup): string {
  if (!server)
    return 'Mail is not set up: nobody is mailed, and what waits for more than three days is given up. Whoever runs the server sets FLIMBO_SMTP_HOST and FLIMBO_SMTP_FROM.'
  const { host, port, from, bounce, isStandIn } = server
  const by = isStandIn ? 'the mail stand-in, which delivers nothing' : `${host}, port ${String(port)}`
  return `Mails leave by ${by}. They come from ${from}; what cannot be delivered goes back to ${bounce}.`
}

function Server({ setup }: { setup: MailSetup }) {
  const test = useChange(mailApi.test)
  return (
    <Sheet
      title="Mail"
      aside={
        setup.server && (
          <Button
            disabled={test.isPending}
            onClick={() => {
              test.mutate({ body: {} })
            }}
          >
            Send me a test mail
          </Button>
        )
      }
    >
      <Typography variant="body2">{serverInWords(setup)}</Typography>
      {test.isSuccess && (
        <Typography variant="body2" role="status" sx={{ mt: 1 }}>
          A test mail is on its way to you.
        </Typography>
      )}
      <Fault sentence={test.isError ? sentenceOf(test.error, 'No test mail was sent.') : null} />
    </Sheet>
  )
}

function MailList({ counts }: Pick<MailSetup, 'counts'>) {
  const { zone } = useSession().workspace
  const [address, setAddress] = useSearchParams()
  const state = MAIL_STATES.find((each) => each === address.get('state'))
  const page = Math.max(0, Number(address.get('at')) || 0)
  const mails = useAnswer(mailApi.list, {
    query: { page, pageSize: PAGE_SIZE, order: 'desc', ...(state ? { state } : {}) },
  })
  const show = (next: string, at: number) => {
    setAddress(
      { ...(next === '' ? {} : { state: next }), ...(at === 0 ? {} : { at: String(at) }) },
      { replace: true },
    )
  }
  const rows = mails.data?.rows ?? []
  const pages = Math.ceil((mails.data?.total ?? 0) / PAGE_SIZE)
  return (
    <Sheet
      title="What was sent, and what waits"
      pad={false}
      aside={
        <TextField
          select
          size="small"
          label="State"
          value={state ?? ''}
          sx={{ minWidth: 190 }}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          onChange={({ target }) => {
            show(target.value, 0)
          }}
        >
          <MenuItem value="">All</MenuItem>
          {MAIL_STATES.map((each) => (
            <MenuItem key={each} value={each}>
              {MAIL_STATE_NAMES[each]} ({counts[each] ?? 0})
            </MenuItem>
          ))}
        </TextField>
      }
    >
      {mails.isError && <Trouble error={mails.error} />}
      {mails.data && rows.length === 0 && (
        <Typography variant="body2" color="textSecondary" sx={{ p: 2 }}>
          {state === undefined
            ? 'No mail yet. Forms on pages can mail whoever answers, and Leads can tell you of each new one.'
            : 'None in this state.'}
        </Typography>
      )}
      {rows.length > 0 && (
        <Table size="small" aria-label="Mails" sx={{ tableLayout: 'fixed' }}>
          <TableHead>
            <TableRow>
              <TableCell sx={{ width: 110 }}>When</TableCell>
              <TableCell sx={{ width: 270 }}>To</TableCell>
              <TableCell>Subject</TableCell>
              <TableCell sx={{ width: 250 }}>State</TableCell>
              <TableCell sx={{ width: 160 }} aria-label="Actions" />
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map((mail) => (
              <MailLine key={mail.id} mail={mail} zone={zone} />
            ))}
          </TableBody>
        </Table>
      )}
      {pages > 1 && (
        <Pagination
          size="small"
          sx={{ p: 1 }}
          count={pages}
          page={page + 1}
          onChange={(_event, to) => {
            show(state ?? '', to - 1)
          }}
        />
      )}
    </Sheet>
  )
}

const TROUBLED: readonly MailState[] = ['refused', 'given-up']

function stateInWords({ state, attempts, reply }: Mail): string {
  const name = MAIL_STATE_NAMES[state]
  if (state === 'sent' || reply === '') return name
  const tries = attempts > 0 && state === 'waiting' ? `, after ${quantity(attempts, 'try', 'tries')}` : ''
  return `${name}${tries}: ${reply}`
}

function MailLine({ mail, zone }: { mail: Mail; zone: string }) {
  const retry = useChange(mailApi.retry)
  const discard = useChange(mailApi.discard)
  const { id, at, address, subject, kind, state, leadId, campaignId } = mail
  const mayRetry = state === 'waiting' || TROUBLED.includes(state)
  return (
    <TableRow sx={{ verticalAlign: 'top' }}>
      <TableCell>
        <When at={at} zone={zone} />
      </TableCell>
      <TableCell sx={{ overflowWrap: 'anywhere' }}>{address}</TableCell>
      <TableCell sx={{ overflowWrap: 'anywhere' }}>
        {leadId !== null && campaignId !== null ? (
          <Link
            component={RouterLink}
            to={`/campaigns/${String(campaignId)}/leads?lead=${String(leadId)}`}
            title="The lead it is about"
          >
            {subject || MAIL_KIND_NAMES[kind]}
          </Link>
        ) : (
          subject || MAIL_KIND_NAMES[kind]
        )}
      </TableCell>
      <TableCell
        sx={{
          overflowWrap: 'anywhere',
          ...(TROUBLED.includes(state) ? { color: 'error.main', fontWeight: 650 } : {}),
        }}
      >
        {stateInWords(mail)}
      </TableCell>
      <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
        {mayRetry && (
          <Button
            size="small"
            disabled={retry.isPending}
            onClick={() => {
              retry.mutate({ params: { id } })
            }}
          >
            Try again
          </Button>
        )}
        {state !== 'sent' && (
          <Button
            size="small"
            color="inherit"
            disabled={discard.isPending}
            onClick={() => {
              discard.mutate({ params: { id } })
            }}
          >
            Delete
          </Button>
        )}
      </TableCell>
    </TableRow>
  )
}
