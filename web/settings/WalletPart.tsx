import { Button, Skeleton, Stack, TextField, Typography } from '@mui/material'
import { fieldFaults } from '@flimbo/core/api'
import { day } from '@flimbo/core/formats'
import { walletApi, walletSetting } from '@flimbo/core/pages'
import { dayIn } from '@flimbo/core/time'
import { useState } from 'react'
import { faultsIn, sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { Fault, Sheet, Trouble } from '../ui/index.ts'

const EMPTY = {
  passType: '',
  teamId: '',
  organisation: '',
  certificate: '',
  key: '',
  keyPassword: '',
  authority: '',
}
type Typed = typeof EMPTY
const FIELDS: readonly (readonly [keyof Typed, string, string])[] = [
  ['organisation', 'Organisation', 'Shown on the pass.'],
  ['passType', 'Identifier of the pass type', 'As the certificate has it: pass.example.crew.'],
  ['teamId', 'Identifier of the team', 'Ten letters and digits.'],
  ['certificate', 'Certificate (PEM)', ''],
  ['key', 'Private key (PEM)', 'Kept here, and never shown again.'],
  ['keyPassword', 'Password of the key', 'Empty where it has none.'],
  ['authority', 'Certificate of the authority (PEM)', ''],
]
const LONG: readonly (keyof Typed)[] = ['certificate', 'key', 'authority']

/** With which certificate contacts are offered as wallet passes; without one, none is. */
export function WalletPart() {
  const { zone } = useSession().workspace
  const state = useAnswer(walletApi.get, {})
  const change = useChange(walletApi.change)
  const [typed, setTyped] = useState<Typed>(EMPTY)
  const [faults, setFaults] = useState<readonly { path: string; message: string }[]>([])
  if (state.isError) return <Trouble error={state.error} />
  if (!state.data) return <Skeleton variant="rounded" height={320} />
  const { stored, version } = state.data
  const fields = faultsIn(change.error)
  const faultOf = (name: string) =>
    faults.find(({ path }) => path === name)?.message ??
    fields.find(({ path }) => path === `value.${name}`)?.message
  const save = () => {
    const checked = walletSetting.safeParse(typed)
    setFaults(checked.success ? [] : fieldFaults(checked.error))
    if (!checked.success) return
    change.mutate(
      { body: { version, value: checked.data } },
      {
        onSuccess: () => {
          setTyped(EMPTY)
        },
      },
    )
  }
  return (
    <Sheet title="Wallet passes">
      <Stack
        component="form"
        noValidate
        sx={{ gap: 2, maxWidth: 640 }}
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <Typography variant="body2" role="status">
          {stored
            ? `Contacts on pages can be saved as wallet passes of ${stored.organisation} (${stored.passType}). The certificate is good until ${day(dayIn(zone, stored.expiresAt))}.`
            : 'No certificate is stored, so pages offer no wallet pass. Store one, and every contact can be saved as a pass.'}
        </Typography>
        {stored && (
          <Button
            color="error"
            sx={{ alignSelf: 'flex-start' }}
            disabled={change.isPending}
            onClick={() => {
              change.mutate({ body: { version, value: null } })
            }}
          >
            Remove certificate
          </Button>
        )}
        {FIELDS.map(([name, label, help]) => (
          <TextField
            key={name}
            size="small"
            label={label}
            value={typed[name]}
            type={name === 'keyPassword' ? 'password' : 'text'}
            multiline={LONG.includes(name)}
            minRows={LONG.includes(name) ? 3 : undefined}
            maxRows={8}
            error={faultOf(name) !== undefined}
            helperText={faultOf(name) ?? help}
            slotProps={{ htmlInput: { spellCheck: false, autoComplete: 'off' } }}
            onChange={({ target }) => {
              setTyped({ ...typed, [name]: target.value })
            }}
          />
        ))}
        <Fault
          sentence={
            change.error && fields.length === 0
              ? sentenceOf(change.error, 'The certificate could not be stored.')
              : null
          }
        />
        <Button
          type="submit"
          variant="contained"
          sx={{ alignSelf: 'flex-start' }}
          disabled={change.isPending}
        >
          {stored ? 'Replace certificate' : 'Store certificate'}
        </Button>
      </Stack>
    </Sheet>
  )
}
