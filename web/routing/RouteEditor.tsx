import { Alert, Box, Button, Link, Skeleton, Stack, Typography } from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { routeChange, routesApi, STATES, type Route } from '@flimbo/core/routing'
import { useEffect, useRef, useState } from 'react'
import { useForm } from 'react-hook-form'
import { Link as RouterLink } from 'react-router'
import { ApiProblem, byContract, showFaults, useAnswer, useChange } from '../api/index.ts'
import { Conflict, counted, disagreements, FormChoice, FormText, number, Sheet, Trouble } from '../ui/index.ts'
import { History } from './History.tsx'
import { RouteCheck } from './RouteCheck.tsx'

type Values = Pick<Route, 'name' | 'destination' | 'state' | 'note'>
const FIELDS = ['name', 'destination', 'state', 'note'] as const
const NAMES = { name: 'Name', destination: 'Destination', state: 'State', note: 'Note' } as const
const STATE_NAMES = { live: 'Live', paused: 'Paused: every code of it shows a page that says so', deleted: 'Deleted: only for a route no piece uses' } as const
const CODES_SHOWN = 12

const valuesOf = ({ name, destination, state, note }: Route): Values => ({ name, destination, state, note })

/** One route: where it leads, which codes share it, and what was changed. */
export function RouteEditor({ id, zone, focusDestination }: { id: number; zone: string; focusDestination: number }) {
  const { data, isError, error, refetch } = useAnswer(routesApi.get, { params: { id } })
  if (isError) return <Trouble error={error} again={() => { void refetch() }} />
  if (data?.id !== id) return <Skeleton variant="rounded" height={320} />
  return (
    <Stack spacing={2}>
      <Sheet title={data.name} aside={<Link component={RouterLink} to={`../results?route=${String(id)}`}>Results of this route</Link>}>
        <Form route={data} focusDestination={focusDestination} />
      </Sheet>
      <RouteCheck id={id} zone={zone} />
      <SharedBy route={data} />
      <Sheet title="What was changed"><History of="route" id={id} zone={zone} /></Sheet>
    </Stack>
  )
}

function Form({ route, focusDestination }: { route: Route; focusDestination: number }) {
  const [version, setVersion] = useState(route.version)
  const [newer, setNewer] = useState<Route | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const change = useChange(routesApi.change)
  const destinationField = useRef<HTMLInputElement>(null)
  const { control, handleSubmit, reset, setError, getValues, formState: { isDirty } } = useForm<Values>({
    defaultValues: valuesOf(route), resolver: byContract(routeChange.omit({ version: true })),
  })
  useEffect(() => {
    if (isDirty || route.version < version) return
    setVersion(route.version)
    reset(valuesOf(route))
  }, [route, version, isDirty, reset])
  useEffect(() => { if (focusDestination > 0) destinationField.current?.select() }, [focusDestination])

  async function save(values: Values, from: number): Promise<void> {
    setTrouble(null)
    setNewer(null)
    try {
      const saved = await change.mutateAsync({ params: { id: route.id }, body: { version: from, ...values } })
      setVersion(saved.version)
      reset(valuesOf(saved))
    } catch (error) {
      if (error instanceof ApiProblem && error.problem.type === '/problems/conflict') setNewer(error.problem.current as Route)
      else setTrouble(showFaults(error, setError, FIELDS))
    }
  }
  const startFrom = (stored: Route) => {
    setVersion(stored.version)
    setNewer(null)
    reset(valuesOf(stored))
  }

  return (
    <Stack component="form" noValidate spacing={2} sx={{ maxWidth: 720 }} onSubmit={(event) => { void handleSubmit((values) => save(values, version))(event) }}>
      {trouble !== null && <Alert severity="error" variant="outlined">{trouble}</Alert>}
      {newer !== null && (
        <Conflict
          what="route" rows={disagreements<Values>(getValues(), newer, NAMES)}
          keepTheirs={() => { startFrom(newer) }} takeMine={() => { void save(getValues(), newer.version) }}
        />
      )}
      <FormText control={control} name="destination" label="Every scan leads to" multiline maxRows={5} hint={`Live for the next scan of ${counted(route.codes, 'code')} after you save`} slotProps={{ htmlInput: { ref: destinationField } }} />
      <DestinationFindings route={route} />
      <FormText control={control} name="name" label="Name" />
      <FormChoice control={control} name="state" label="State" choices={STATES.map((value) => ({ value, label: STATE_NAMES[value] }))} />
      <FormText control={control} name="note" label="Note" multiline maxRows={5} />
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button type="submit" variant="contained" disabled={!isDirty || change.isPending}>Save</Button>
        {isDirty
          ? <Button color="inherit" onClick={() => { startFrom(route) }}>Undo the changes</Button>
          : <Typography variant="body2" color="textSecondary" role="status">Everything is saved.</Typography>}
      </Stack>
    </Stack>
  )
}

/** What the linter says of the destination itself, seen through the first piece that uses it. */
function DestinationFindings({ route }: { route: Route }) {
  const codes = useAnswer(codesApi.list, { query: { routeId: route.id, pageSize: CODES_SHOWN, sort: 'scans', order: 'desc' } })
  const found = codes.data?.rows[0]?.findings.filter(({ field }) => field === 'destination') ?? []
  return found.map(({ kind, sentence }) => <Alert key={kind} severity="warning" variant="outlined" icon={false}>{sentence}</Alert>)
}

function SharedBy({ route }: { route: Route }) {
  const codes = useAnswer(codesApi.list, { query: { routeId: route.id, pageSize: CODES_SHOWN, sort: 'scans', order: 'desc' } })
  const rest = (codes.data?.total ?? 0) - CODES_SHOWN
  return (
    <Sheet title={`Codes that lead here: ${number(codes.data?.total ?? 0)}`}>
      {codes.data?.total === 0 && <Typography color="textSecondary">No piece uses this route yet. Choose it when you add a piece in the plan.</Typography>}
      <Box component="ul" sx={{ columns: 2, m: 0, pl: 2.5 }}>
        {codes.data?.rows.map((code) => (
          <li key={code.id}><Link component={RouterLink} to={`../plan?code=${String(code.id)}`}>{code.name}</Link> <Typography component="span" variant="body2" color="textSecondary">{counted(code.scans.scans, 'scan')}</Typography>{code.findings.length > 0 && <Typography component="span" variant="body2" color="warning" title={code.findings.map(({ sentence }) => sentence).join(' ')}> ▲ {counted(code.findings.length, 'thing')} to look over</Typography>}</li>
        ))}
      </Box>
      {rest > 0 && <Typography variant="body2" color="textSecondary">and {counted(rest, 'more code', 'more codes')} in the plan</Typography>}
    </Sheet>
  )
}
