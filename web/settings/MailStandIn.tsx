import {
  Box,
  Button,
  MenuItem,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { number, quantity } from '@flimbo/core/formats'
import { mailApi, type ReceivedMail, type StandInManner } from '@flimbo/core/mail'
import { useState } from 'react'
import { useAnswer, useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { Sheet, When } from '../ui/index.ts'

const LOOK_MS = 1000
const MANNERS: Readonly<Record<StandInManner, string>> = {
  take: 'Takes them',
  refuse: 'Refuses them (550)',
  delay: 'Puts them off (451)',
  drop: 'Takes them, and hangs up before it says so',
}
const SIDES = { text: 'Text', html: 'HTML', headers: 'Headers' } as const
type Side = keyof typeof SIDES

/** What the mail stand-in received, as it came, and what it does with the next. */
export function MailStandIn() {
  const { zone } = useSession().workspace
  const received = useAnswer(mailApi.received, {}, { refetchInterval: LOOK_MS })
  const change = useChange(mailApi.manner)
  const [chosen, setChosen] = useState<number | null>(null)
  const rows = received.data?.rows ?? []
  const shown = rows.find(({ number }) => number === chosen) ?? rows[0]
  return (
    <Sheet
      title="What the mail stand-in received"
      aside={
        <TextField
          select
          size="small"
          label="It treats mails so"
          value={received.data?.manner ?? 'take'}
          sx={{ minWidth: 260 }}
          onChange={({ target }) => {
            change.mutate({ body: { manner: target.value as StandInManner } })
          }}
        >
          {Object.entries(MANNERS).map(([manner, words]) => (
            <MenuItem key={manner} value={manner}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      }
    >
      <Typography variant="body2" color="textSecondary" role="status" sx={{ mb: 1 }}>
        {rows.length === 0
          ? 'Nothing yet. Answer a form that mails, or send yourself a test mail.'
          : `The latest ${quantity(rows.length, 'mail')}. It delivers none of them.`}
      </Typography>
      {shown && (
        <Stack direction="row" sx={{ gap: 2, alignItems: 'flex-start' }}>
          <Box
            component="ul"
            aria-label="Received mails"
            sx={{ listStyle: 'none', m: 0, p: 0, width: 360, maxHeight: 460, overflowY: 'auto' }}
          >
            {rows.map((mail) => (
              <Box component="li" key={mail.number}>
                <Button
                  color="inherit"
                  fullWidth
                  aria-current={mail === shown}
                  sx={{
                    display: 'block',
                    textAlign: 'left',
                    textTransform: 'none',
                    ...(mail === shown ? { bgcolor: 'action.selected' } : {}),
                  }}
                  onClick={() => {
                    setChosen(mail.number)
                  }}
                >
                  <Typography component="span" variant="body2" noWrap sx={{ display: 'block' }}>
                    {mail.subject}
                  </Typography>
                  <Typography component="span" variant="caption" color="textSecondary">
                    {mail.recipients.join(', ')}, <When at={mail.at} zone={zone} />
                  </Typography>
                </Button>
              </Box>
            ))}
          </Box>
          <ReceivedSheet mail={shown} />
        </Stack>
      )}
    </Sheet>
  )
}

function sideOf(mail: ReceivedMail, side: Side): string {
  return side === 'headers' ? mail.headers.map(([, line]) => line).join('\n') : mail[side]
}

function ReceivedSheet({ mail }: { mail: ReceivedMail }) {
  const [side, setSide] = useState<Side>('text')
  return (
    <Box sx={{ flex: 1, minWidth: 0 }} aria-label="Mail" role="group">
      <Typography variant="h3">{mail.subject}</Typography>
      <Typography variant="body2" color="textSecondary">
        From {mail.from} to {mail.to}
        {mail.replyTo !== '' && `, replies to ${mail.replyTo}`}
      </Typography>
      {mail.attachments.map(({ name, bytes }) => (
        <Typography key={name} variant="body2" color="textSecondary">
          Attached: {name}, {number(Math.ceil(bytes / 1024))} kB
        </Typography>
      ))}
      <ToggleButtonGroup
        exclusive
        size="small"
        value={side}
        aria-label="Shown as"
        sx={{ my: 1 }}
        onChange={(_event, next: Side | null) => {
          if (next) setSide(next)
        }}
      >
        {Object.entries(SIDES).map(([each, name]) => (
          <ToggleButton key={each} value={each}>
            {name}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Typography
        component="pre"
        variant={side === 'text' ? 'body2' : 'mono'}
        tabIndex={0}
        sx={{ whiteSpace: 'pre-wrap', overflowWrap: 'anywhere', m: 0, maxHeight: 380, overflowY: 'auto' }}
      >
        {sideOf(mail, side)}
      </Typography>
    </Box>
  )
}
