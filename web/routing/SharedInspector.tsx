import { Alert, Button, Link, Stack, TextField, Typography } from '@mui/material'
import { laneSetsApi, type LaneSet } from '@flimbo/core/routing'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { sentenceOf, useChange } from '../api/index.ts'
import { Pick } from '../conditions/index.ts'
import { quantity } from '@flimbo/core/formats'
import { Inspector } from '../ui/index.ts'
import type { DraftState } from './useDraft.ts'

/** Which set of lanes a route shares with others, and whether it is asked before or after its own. */
export function SharedInspector({
  state: { draft, edit },
  sets,
  close,
}: {
  state: DraftState
  sets: readonly LaneSet[]
  close: () => void
}) {
  const { shared, lanes } = draft.rules
  const used = sets.find(({ id }) => id === shared?.setId)
  const use = (next: typeof shared) => {
    edit((was) => ({ ...was, rules: { ...was.rules, shared: next } }))
  }
  return (
    <Inspector title="Shared lanes" close={close}>
      <Stack sx={{ gap: 2 }}>
        <Typography variant="body2" color="textSecondary">
          A set of lanes is kept once and asked by many routes. A change of it changes all of them.
        </Typography>
        <Pick
          label="Set"
          value={String(shared?.setId ?? '')}
          choices={[['', 'none'], ...sets.map(({ id, name }) => [String(id), name] as const)]}
          change={(id) => {
            use(id === '' ? null : { setId: Number(id), place: shared?.place ?? 'first' })
          }}
        />
        {shared && (
          <Pick
            label="Position"
            value={shared.place}
            choices={[
              ['first', 'before its own lanes'],
              ['last', 'after its own lanes'],
            ]}
            change={(place) => {
              use({ ...shared, place: place === 'last' ? 'last' : 'first' })
            }}
          />
        )}
        {used && (
          <Typography variant="body2">
            {quantity(used.lanes.length, 'lane')}, used by {quantity(used.routes.length, 'route')}.{' '}
            <Link component={RouterLink} to={`/settings/lanes?set=${String(used.id)}`}>
              Edit the set
            </Link>
          </Typography>
        )}
        {lanes.length > 0 && lanes.every(({ outcome }) => outcome.kind !== 'route') && (
          <KeepForm
            lanes={lanes}
            kept={(setId) => {
              edit((was) => ({
                ...was,
                rules: { ...was.rules, lanes: [], shared: { setId, place: 'first' } },
              }))
            }}
            mayKeep={shared === null}
          />
        )}
      </Stack>
    </Inspector>
  )
}

/** Keeps a route's own lanes as a set, and lets the route use that instead. */
function KeepForm({
  lanes,
  kept,
  mayKeep,
}: {
  lanes: LaneSet['lanes']
  kept: (setId: number) => void
  mayKeep: boolean
}) {
  const [name, setName] = useState('')
  const create = useChange(laneSetsApi.create)
  if (!mayKeep) return null
  const keep = () => {
    create.mutate(
      { body: { name, lanes } },
      {
        onSuccess: ({ id }) => {
          setName('')
          kept(id)
        },
      },
    )
  }
  return (
    <Stack
      component="form"
      sx={{ gap: 1 }}
      onSubmit={(event) => {
        event.preventDefault()
        if (name.trim() !== '') keep()
      }}
    >
      <Typography variant="h3">Share this route’s lanes</Typography>
      {create.error && (
        <Alert severity="error" variant="outlined">
          {sentenceOf(create.error, 'The set could not be saved.')}
        </Alert>
      )}
      <TextField
        size="small"
        label="Name of the set"
        value={name}
        onChange={({ target }) => {
          setName(target.value)
        }}
      />
      <Button
        type="submit"
        variant="outlined"
        sx={{ alignSelf: 'flex-start' }}
        disabled={name.trim() === '' || create.isPending}
      >
        Keep {quantity(lanes.length, 'lane')} as a set
      </Button>
    </Stack>
  )
}
