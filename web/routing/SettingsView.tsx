import { Box, Button, Link, Stack, Typography } from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { routeChange, routesApi, STATES, type Route, type WholeRoute } from '@flimbo/core/routing'
import { useEffect, useEffectEvent, useState } from 'react'
import { useForm } from 'react-hook-form'
import { Link as RouterLink } from 'react-router'
import { byContract, showFaults, useAnswer, useChange, useVersion } from '../api/index.ts'
import { quantity, number } from '@flimbo/core/formats'
import { Conflict, disagreements, FormChoice, FormText, Sheet, Fault } from '../ui/index.ts'
import { History } from './History.tsx'

type Values = Pick<Route, 'name' | 'state' | 'note'>
const FIELDS = ['name', 'state', 'note'] as const
const NAMES = { name: 'Name', state: 'State', note: 'Note' } as const
const STATE_NAMES = {
  live: 'Live',
  paused: 'Paused: every code of it shows a page that says so',
  deleted: 'Deleted: only for a route no piece uses',
} as const
const CODES_SHOWN = 12

const valuesOf = ({ name, state, note }: Route): Values => ({ name, state, note })

/** What a route is called, whether it is live, who shares it, and every change of it. */
export function SettingsView({ route, zone }: { route: WholeRoute; zone: string }) {
  return (
    <Stack spacing={2}>
      <Sheet title="Name and state">
        <Form route={route} />
      </Sheet>
      <SharedBy route={route} />
      <Sheet title="Change history">
        <History of="route" id={route.id} zone={zone} route={route} />
      </Sheet>
    </Stack>
  )
}

function Form({ route }: { route: WholeRoute }) {
  const [trouble, setTrouble] = useState<string | null>(null)
  const change = useChange(routesApi.change)
  const {
    control,
    handleSubmit,
    reset,
    setError,
    getValues,
    formState: { isDirty },
  } = useForm<Values>({
    defaultValues: valuesOf(route),
    resolver: byContract(routeChange.omit({ version: true })),
  })
  const version = useVersion<Route>(route.version, isDirty)
  const follow = useEffectEvent((stored: Route) => {
    if (stored.version >= version.current()) reset(valuesOf(stored))
  })
  useEffect(() => {
    if (!isDirty) follow(route)
  }, [route, isDirty])

  async function save(values: Values): Promise<void> {
    setTrouble(null)
    try {
      const saved = await version.save((from) =>
        change.mutateAsync({ params: { id: route.id }, body: { version: from, ...values } }),
      )
      if (saved !== null) reset(valuesOf(saved))
    } catch (error) {
      setTrouble(showFaults(error, setError, FIELDS))
    }
  }
  const startFrom = (stored: Route) => {
    version.rebase()
    reset(valuesOf(stored))
  }

  return (
    <Stack
      component="form"
      noValidate
      spacing={2}
      sx={{ maxWidth: 720 }}
      onSubmit={(event) => {
        void handleSubmit(save)(event)
      }}
    >
      <Fault sentence={trouble} />
      {version.newer !== null && (
        <Conflict
          what="route"
          rows={disagreements<Values>(getValues(), version.newer, NAMES)}
          keepStored={() => {
            startFrom(version.newer ?? route)
          }}
          overwrite={() => {
            version.rebase()
            void save(getValues())
          }}
        />
      )}
      <FormText control={control} name="name" label="Name" />
      <FormChoice
        control={control}
        name="state"
        label="State"
        choices={STATES.map((value) => ({ value, label: STATE_NAMES[value] }))}
      />
      <FormText control={control} name="note" label="Note" multiline maxRows={5} />
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button type="submit" variant="contained" disabled={!isDirty || change.isPending}>
          Save
        </Button>
        {isDirty ? (
          <Button
            color="inherit"
            onClick={() => {
              startFrom(route)
            }}
          >
            Discard changes
          </Button>
        ) : (
          <Typography variant="body2" color="textSecondary" role="status">
            Everything is saved.
          </Typography>
        )}
      </Stack>
    </Stack>
  )
}

function SharedBy({ route }: { route: Route }) {
  const codes = useAnswer(codesApi.list, {
    query: { routeId: route.id, pageSize: CODES_SHOWN, sort: 'scans', order: 'desc' },
  })
  const rest = (codes.data?.total ?? 0) - CODES_SHOWN
  return (
    <Sheet title={`Codes that lead here: ${number(codes.data?.total ?? 0)}`}>
      {codes.data?.total === 0 && (
        <Typography color="textSecondary">
          No piece uses this route yet. Choose it when you add a piece in the plan.
        </Typography>
      )}
      <Box component="ul" sx={{ columns: 2, m: 0, pl: 2.5 }}>
        {codes.data?.rows.map((code) => (
          <li key={code.id}>
            <Link component={RouterLink} to={`../plan?code=${String(code.id)}`} underline="always">
              {code.name}
            </Link>{' '}
            <Typography component="span" variant="body2" color="textSecondary">
              {quantity(code.scans.scans, 'scan')}
            </Typography>
            {code.findings.length > 0 && (
              <Typography
                component="span"
                variant="body2"
                color="warning"
                title={code.findings.map(({ sentence }) => sentence).join(' ')}
              >
                {' '}
                ▲ {quantity(code.findings.length, 'warning')}
              </Typography>
            )}
          </li>
        ))}
      </Box>
      {rest > 0 && (
        <Typography variant="body2" color="textSecondary">
          and {quantity(rest, 'more code', 'more codes')} in the plan
        </Typography>
      )}
    </Sheet>
  )
}
