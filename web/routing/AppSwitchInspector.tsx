import { Button, Stack, TextField, Typography } from '@mui/material'
import {
  APP_SYSTEMS,
  appSwitchIn,
  readDestination,
  withAppSwitch,
  type AppSwitch,
} from '@flimbo/core/routing'
import { useState } from 'react'
import { Inspector } from '../ui/index.ts'
import type { DraftState } from './useDraft.ts'

/** What is wrong with an address; nothing with one that is left out. */
const faultOf = (address: string, isWanted: boolean) => {
  if (address.trim() === '' && !isWanted) return null
  const reading = readDestination(address)
  return reading.ok ? null : reading.sentence
}
const readAs = (address: string) => {
  const reading = readDestination(address)
  return reading.ok ? reading.text : ''
}

/** Where phones of each system are led, on one screen: it becomes lanes as any other. */
export function AppSwitchInspector({ state, close }: { state: DraftState; close: () => void }) {
  const [typed, setTyped] = useState<AppSwitch>(() => appSwitchIn(state.draft))
  const [isTried, setTried] = useState(false)
  const fault = (address: string, isWanted: boolean) => (isTried ? faultOf(address, isWanted) : null)
  const save = () => {
    setTried(true)
    const faults = [
      faultOf(typed.otherwise, true),
      ...Object.values(typed.addresses).map((address) => faultOf(address, false)),
    ]
    if (faults.some((each) => each !== null)) return
    const addresses = Object.fromEntries(
      Object.entries(typed.addresses).map(([system, address]) => [system, readAs(address)]),
    )
    state.edit((was) => withAppSwitch(was, { addresses, otherwise: readAs(typed.otherwise) }))
    close()
  }
  return (
    <Inspector title="App switch" close={close}>
      <Stack
        component="form"
        noValidate
        sx={{ gap: 2 }}
        onSubmit={(event) => {
          event.preventDefault()
          save()
        }}
      >
        <Typography variant="body2">
          Each phone is led to the address for its system, all others to the last. This makes lanes of the
          route; more can be asked of them there.
        </Typography>
        {APP_SYSTEMS.map(([system, name]) => {
          const address = typed.addresses[system] ?? ''
          const wrong = fault(address, false)
          return (
            <TextField
              key={system}
              size="small"
              label={name}
              placeholder="https://"
              value={address}
              error={wrong !== null}
              helperText={wrong}
              onChange={({ target }) => {
                setTyped({ ...typed, addresses: { ...typed.addresses, [system]: target.value } })
              }}
            />
          )
        })}
        <TextField
          size="small"
          label="All others"
          value={typed.otherwise}
          error={fault(typed.otherwise, true) !== null}
          helperText={fault(typed.otherwise, true) ?? 'Computers, and phones of no system above.'}
          onChange={({ target }) => {
            setTyped({ ...typed, otherwise: target.value })
          }}
        />
        <Button type="submit" variant="contained" sx={{ alignSelf: 'flex-start' }}>
          Make lanes
        </Button>
      </Stack>
    </Inspector>
  )
}
