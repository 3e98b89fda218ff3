import { Box, Button, FormControlLabel, MenuItem, Stack, Switch, TextField, Typography } from '@mui/material'
import { phoneApi, type PhoneAnswer, type PhoneChoices } from '@flimbo/core/phone'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { ApiProblem, useAnswer, useChange } from '../api/index.ts'
import { PageFrame, Sheet, Trouble, Fault } from '../ui/index.ts'
import { Picture, type Held } from './Picture.tsx'
import { NoPicture, readSymbol } from './read.ts'

interface Owner {
  device: string
  place: string
  language: string
  count: boolean
  agrees: boolean
}

function sentence(error: unknown): string {
  return error instanceof NoPicture || error instanceof ApiProblem
    ? error.message
    : 'The phone could not do this. Try again.'
}

/** A phone at the desk: it reads a symbol from its picture and asks the front door, from wherever it is said to be. */
export function PhoneScreen() {
  const [address] = useSearchParams()
  const choices = useAnswer(phoneApi.choices, {})
  const ask = useChange(phoneApi.scan)
  const [held, setHeld] = useState<Held | null>(null)
  const [owner, setOwner] = useState<Owner>({
    device: 'ios-safari',
    place: 'de-bremen',
    language: 'de',
    count: false,
    agrees: true,
  })
  const [read, setRead] = useState<string | null>(null)
  const [answer, setAnswer] = useState<PhoneAnswer | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)

  async function scan(): Promise<void> {
    if (!held) return
    setTrouble(null)
    setAnswer(null)
    setRead(null)
    setBusy(true)
    try {
      const text = await readSymbol(held.blob)
      if (text === null) {
        setTrouble(
          'No symbol was found in this picture. Take a sharper one, straight from the front and with its white border.',
        )
        return
      }
      setRead(text)
      setAnswer(await ask.mutateAsync({ body: { read: text, ...owner } }))
    } catch (error) {
      setTrouble(sentence(error))
    } finally {
      setBusy(false)
    }
  }
  const hold = (next: Held) => {
    setHeld(next)
    setAnswer(null)
    setRead(null)
    setTrouble(null)
  }

  if (choices.isError)
    return (
      <Trouble
        error={choices.error}
        retry={() => {
          void choices.refetch()
        }}
      />
    )
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        Phone
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: '360px 300px minmax(0, 1fr)',
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Sheet title="1  Before the camera">
          <Picture
            held={held}
            hold={hold}
            codeId={Number(address.get('code')) || null}
            trouble={setTrouble}
          />
        </Sheet>
        <Sheet title="2  Whose phone">
          <Stack spacing={2}>
            {choices.data && <OwnerForm choices={choices.data} owner={owner} change={setOwner} />}
            <Button
              variant="contained"
              size="medium"
              disabled={!held || busy}
              onClick={() => {
                void scan()
              }}
            >
              Scan
            </Button>
            <Fault sentence={trouble} />
          </Stack>
        </Sheet>
        <Sheet title="3  What it shows">
          <Shown read={read} answer={answer} />
        </Sheet>
      </Box>
    </Box>
  )
}

function OwnerForm({
  choices,
  owner,
  change,
}: {
  choices: PhoneChoices
  owner: Owner
  change: (owner: Owner) => void
}) {
  const field = (
    name: 'device' | 'place' | 'language',
    label: string,
    options: readonly { id: string; label: string }[],
  ) => (
    <TextField
      select
      size="small"
      label={label}
      value={owner[name]}
      onChange={({ target }) => {
        change({ ...owner, [name]: target.value })
      }}
    >
      {options.map((each) => (
        <MenuItem key={each.id} value={each.id}>
          {each.label}
        </MenuItem>
      ))}
    </TextField>
  )
  return (
    <>
      {field('device', 'Device', choices.devices)}
      {field('place', 'Place', choices.places)}
      {field('language', 'Language', choices.languages)}
      <Box>
        <FormControlLabel
          disabled={!choices.mayCount}
          control={
            <Switch
              checked={owner.count}
              onChange={(_event, count) => {
                change({ ...owner, count })
              }}
            />
          }
          label="Count it as a real scan"
        />
        <Typography variant="body2" color="textSecondary">
          {owner.count ? 'It will be in every figure.' : 'A test scan: recorded apart, in no figure.'}
        </Typography>
        <FormControlLabel
          control={
            <Switch
              checked={owner.agrees}
              onChange={(_event, agrees) => {
                change({ ...owner, agrees })
              }}
            />
          }
          label="Says yes when asked about visit tags"
        />
      </Box>
    </>
  )
}

function Shown({ read, answer }: { read: string | null; answer: PhoneAnswer | null }) {
  if (read === null)
    return (
      <Typography color="textSecondary">
        Hold a symbol before the camera and press Scan: what it carries, each answer on the way, and the page
        that comes up stand here.
      </Typography>
    )
  return (
    <Stack spacing={1.5} role="status" aria-label="What the phone shows">
      <Typography variant="body2">
        The symbol carries{' '}
        <Typography component="span" variant="mono" sx={{ overflowWrap: 'anywhere' }}>
          {read}
        </Typography>
      </Typography>
      <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
        {answer?.steps.map(({ address, status, says }, i) => (
          <Typography component="li" variant="body2" key={i} sx={{ mb: 0.5 }}>
            <Typography component="span" variant="mono" sx={{ overflowWrap: 'anywhere' }}>
              {address}
            </Typography>
            <br />
            {status !== null && <strong>{status} </strong>}
            {says}
          </Typography>
        ))}
      </Box>
      {answer?.page && <PageFrame title="The page that came up" markup={answer.page} height={420} />}
      {answer?.landed?.frame && (
        <Box
          component="iframe"
          title="The page that came up"
          src={answer.landed.frame}
          sandbox=""
          sx={{
            width: 320,
            height: 420,
            border: 1,
            borderColor: 'text.secondary',
            borderRadius: 2,
            bgcolor: '#fff',
          }}
        />
      )}
    </Stack>
  )
}
