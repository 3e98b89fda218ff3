import { Alert, Button, Stack, Typography } from '@mui/material'
import { codeChange, codesApi, type Code } from '@flimbo/core/codes'
import { destination as destinationContract, routesApi, STATES, type Route } from '@flimbo/core/routing'
import { useEffect, useRef, useState } from 'react'
import { useForm } from 'react-hook-form'
import type { z } from 'zod'
import { ApiProblem, byContract, showFaults, useChange } from '../api/index.ts'
import { Conflict, counted, disagreements, FormChoice, FormText } from '../ui/index.ts'

const NAMES = { name: 'Name', medium: 'Medium', source: 'Source', content: 'Content', term: 'Term', place: 'Place', note: 'Note', state: 'State' } as const
const CODE_FIELDS = ['name', 'medium', 'source', 'content', 'term', 'place', 'note', 'state'] as const
type CodeValues = Pick<Code, (typeof CODE_FIELDS)[number]>
type Values = CodeValues & { destination: string }

const STATE_NAMES = { live: 'Live: scans are sent on', paused: 'Paused: a page says so', deleted: 'Deleted: a page says so' } as const

const contract = codeChange.omit({ version: true }).extend({ destination: destinationContract })

const valuesOf = (code: Code): Values => ({
  name: code.name, medium: code.medium, source: code.source, content: code.content, term: code.term,
  place: code.place, note: code.note, state: code.state, destination: code.destination,
})

/** Versions a save starts from; another's newer save makes the server refuse it. */
interface Base { code: Code; routeVersion: number; destination: string }
const baseOf = (code: Code): Base => ({ code, routeVersion: code.routeVersion, destination: code.destination })

/** Everything that can be changed of a piece, with one Save. */
export function PieceForm({ code, focusDestination }: { code: Code; focusDestination: number }) {
  const [base, setBase] = useState(() => baseOf(code))
  const [newer, setNewer] = useState<{ code?: Code; route?: Route } | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const changeCode = useChange(codesApi.change)
  const changeRoute = useChange(routesApi.change)
  const { control, handleSubmit, reset, setError, getValues, formState: { isDirty } } = useForm<Values>({
    defaultValues: valuesOf(code), resolver: byContract(contract as z.ZodType),
  })
  const destinationField = useRef<HTMLInputElement>(null)

  // What others save shows at once, but never in place of what is being typed.
  useEffect(() => {
    const older = code.version < base.code.version || code.routeVersion < base.routeVersion
    if (isDirty || older) return
    setBase(baseOf(code))
    reset(valuesOf(code))
    // The base only ever moves to something newer here, so it need not be watched.
  }, [code, isDirty, reset])
  useEffect(() => { if (focusDestination > 0) destinationField.current?.select() }, [focusDestination])

  async function save(values: Values, from: Base): Promise<void> {
    setTrouble(null)
    setNewer(null)
    const { destination: typed, ...fields } = values
    const destination = typed.trim()
    let next = from
    try {
      if (destination !== from.destination) {
        const route = await changeRoute.mutateAsync({ params: { id: code.routeId }, body: { version: from.routeVersion, destination } })
        next = { ...next, routeVersion: route.version, destination: route.destination }
      }
      if (CODE_FIELDS.some((field) => fields[field] !== from.code[field])) {
        next = { ...next, code: await changeCode.mutateAsync({ params: { id: code.id }, body: { version: from.code.version, ...fields } }) }
      }
      setBase(next)
      reset({ ...valuesOf(next.code), destination: next.destination })
    } catch (error) {
      setBase(next)
      if (!(error instanceof ApiProblem) || error.problem.type !== '/problems/conflict') {
        setTrouble(showFaults(error, setError, [...CODE_FIELDS, 'destination']))
        return
      }
      // The route was sent first: while its own change is not stored, the conflict is the route's.
      const current = error.problem.current
      setNewer(destination !== next.destination ? { route: current as Route } : { code: current as Code })
    }
  }

  const rows = newer === null ? [] : newer.route
    ? [{ name: 'Destination', mine: getValues('destination'), theirs: newer.route.destination }].filter(({ mine, theirs }) => mine !== theirs)
    : newer.code ? disagreements<CodeValues>(getValues(), newer.code, NAMES) : []

  const stored = (): Base => ({
    code: newer?.code ?? base.code,
    routeVersion: newer?.route?.version ?? base.routeVersion,
    destination: newer?.route?.destination ?? base.destination,
  })

  return (
    <Stack component="form" noValidate spacing={2} onSubmit={(event) => { void handleSubmit((values) => save(values, base))(event) }}>
      {trouble !== null && <Alert severity="error" variant="outlined">{trouble}</Alert>}
      {newer !== null && (
        <Conflict
          what={newer.route ? 'destination' : 'piece'} rows={rows}
          keepTheirs={() => {
            const now = stored()
            setBase(now)
            setNewer(null)
            reset({ ...(newer.code ? valuesOf(newer.code) : getValues()), destination: now.destination })
          }}
          takeMine={() => { void save(getValues(), stored()) }}
        />
      )}
      <FormText
        control={control} name="destination" label="Destination" multiline maxRows={4}
        slotProps={{ htmlInput: { ref: destinationField } }}
        hint={code.routeCodes > 1 ? `Shared: this changes where ${counted(code.routeCodes, 'code')} of “${code.routeName}” lead` : 'Live for the next scan after you save'}
      />
      <FormText control={control} name="name" label="Name" />
      <Stack direction="row" spacing={2}>
        <FormText control={control} name="medium" label="Medium" />
        <FormText control={control} name="source" label="Source" />
      </Stack>
      <Stack direction="row" spacing={2}>
        <FormText control={control} name="content" label="Content" />
        <FormText control={control} name="term" label="Term" />
      </Stack>
      <FormText control={control} name="place" label="Place" />
      <FormText control={control} name="note" label="Note" multiline maxRows={4} />
      <FormChoice control={control} name="state" label="State" choices={STATES.map((value) => ({ value, label: STATE_NAMES[value] }))} />
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button type="submit" variant="contained" disabled={!isDirty || changeCode.isPending || changeRoute.isPending}>Save</Button>
        {isDirty
          ? <Button color="inherit" onClick={() => { reset(valuesOf(code)); setTrouble(null); setNewer(null) }}>Undo the changes</Button>
          : <Typography variant="body2" color="textSecondary" role="status">Everything is saved.</Typography>}
      </Stack>
    </Stack>
  )
}
