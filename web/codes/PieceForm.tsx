import { Alert, Button, Stack, Typography } from '@mui/material'
import { codesApi, type Code, type CodeSet } from '@flimbo/core/codes'
import { routesApi, type Route } from '@flimbo/core/routing'
import { useEffect, useRef, useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { byContract, newerOf, showFaults, useAnswer, useChange } from '../api/index.ts'
import { taggingApi } from '@flimbo/core/tagging'
import { counted } from '@flimbo/core/formats'
import { Conflict, disagreements, FormChoice, FormDestination, FormText } from '../ui/index.ts'
import { OwnFields, PlanFields } from './PlanFields.tsx'
import { pieceContract, readTyped, TYPED, typedValues, type TypedValues } from './pieceValues.ts'
import { SlugHint } from './SlugHint.tsx'
import { TagField } from './TagField.tsx'

const NAMES = {
  name: 'Name',
  medium: 'Medium',
  source: 'Source',
  content: 'Content',
  term: 'Term',
  place: 'Place',
  note: 'Note',
  state: 'State',
  level: 'Level',
  slug: 'Short link',
  reference: 'Reference',
  key: 'Key',
  sizeMm: 'Size',
  viewingM: 'Scanned from',
  latitude: 'Latitude',
  longitude: 'Longitude',
  printRun: 'Print run',
  cost: 'Cost',
  liveOn: 'Goes live',
  downOn: 'Comes down',
} as const
const TEXTS = [
  'name',
  'medium',
  'source',
  'content',
  'term',
  'place',
  'note',
  'state',
  'level',
  'slug',
  'reference',
  'key',
] as const
const CODE_FIELDS = [...TEXTS, ...TYPED] as const
type CodeValues = Pick<Code, (typeof TEXTS)[number]> & TypedValues
type Values = CodeValues & { destination: string; extra: Record<string, string> }

const STATE_NAMES = {
  live: 'Live: scans are sent on',
  paused: 'Paused: a page says so',
  deleted: 'Deleted',
} as const

const codeValues = (code: Code): CodeValues => ({
  name: code.name,
  medium: code.medium,
  source: code.source,
  content: code.content,
  term: code.term,
  place: code.place,
  note: code.note,
  state: code.state,
  level: code.level,
  slug: code.slug,
  reference: code.reference,
  key: code.key,
  ...typedValues(code),
})
const valuesOf = (code: Code): Values => ({
  ...codeValues(code),
  destination: code.destination,
  extra: code.extra,
})

/** What somebody else saved meanwhile. */
interface Newer {
  code?: Code
  route?: Route
}

/** Where what is typed and what somebody else saved meanwhile differ. */
function disputed(mine: Values, newer: Newer) {
  if (newer.code) return disagreements<CodeValues>(mine, codeValues(newer.code), NAMES)
  const theirs = newer.route?.destination ?? mine.destination
  return mine.destination === theirs ? [] : [{ name: 'Destination', mine: mine.destination, theirs }]
}

/** Versions a save starts from; another's newer save makes the server refuse it. */
interface Base {
  code: Code
  routeVersion: number
  destination: string
}
const baseOf = (code: Code): Base => ({
  code,
  routeVersion: code.routeVersion,
  destination: code.destination,
})

/** Everything that can be changed of a piece, with one Save. */
export function PieceForm({ code, focusDestination }: { code: Code; focusDestination: number }) {
  const [base, setBase] = useState(() => baseOf(code))
  const [newer, setNewer] = useState<Newer | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const changeCode = useChange(codesApi.change)
  const changeRoute = useChange(routesApi.change)
  const {
    control,
    handleSubmit,
    reset,
    setError,
    setValue,
    getValues,
    formState: { isDirty },
  } = useForm<Values>({
    defaultValues: valuesOf(code),
    resolver: byContract(pieceContract, readTyped),
  })
  const slug = useWatch({ control, name: 'slug' })
  const rules = useAnswer(taggingApi.rules, {})
  const destinationField = useRef<HTMLInputElement>(null)

  // What others save shows at once, but never in place of what is being typed.
  useEffect(() => {
    const older = code.version < base.code.version || code.routeVersion < base.routeVersion
    if (isDirty || older) return
    setBase(baseOf(code))
    reset(valuesOf(code))
  }, [code, isDirty, reset, base.code.version, base.routeVersion])
  useEffect(() => {
    if (focusDestination > 0) destinationField.current?.select()
  }, [focusDestination])

  async function save(values: Values, from: Base): Promise<void> {
    setTrouble(null)
    setNewer(null)
    const { destination: typed, ...fields } = values
    const destination = typed.trim()
    let next = from
    try {
      if (destination !== from.destination) {
        const route = await changeRoute.mutateAsync({
          params: { id: code.routeId },
          body: { version: from.routeVersion, destination },
        })
        next = { ...next, routeVersion: route.version, destination: route.destination }
      }
      const was = valuesOf(from.code)
      if (
        CODE_FIELDS.some((field) => fields[field] !== was[field]) ||
        JSON.stringify(fields.extra) !== JSON.stringify(was.extra)
      ) {
        // The contract has just checked what was typed; only what differs is sent, so that nothing else is touched.
        const typed = readTyped(fields) as CodeSet
        const set = Object.fromEntries(
          Object.entries(typed).filter(
            ([field]) =>
              field === 'extra' || fields[field as keyof CodeValues] !== was[field as keyof CodeValues],
          ),
        )
        next = {
          ...next,
          code: await changeCode.mutateAsync({
            params: { id: code.id },
            body: { version: from.code.version, ...set },
          }),
        }
      }
      setBase(next)
      reset({ ...valuesOf(next.code), destination: next.destination })
    } catch (error) {
      setBase(next)
      const stored = newerOf<Code | Route>(error)
      if (!stored) {
        setTrouble(showFaults(error, setError, [...CODE_FIELDS, 'destination']))
        return
      }
      // The route was sent first: while its own change is not stored, the conflict is the route's.
      setNewer(
        destination !== next.destination
          ? { route: stored.current as Route }
          : { code: stored.current as Code },
      )
    }
  }

  const rows = newer === null ? [] : disputed(getValues(), newer)

  const stored = (): Base => ({
    code: newer?.code ?? base.code,
    routeVersion: newer?.route?.version ?? base.routeVersion,
    destination: newer?.route?.destination ?? base.destination,
  })

  return (
    <Stack
      component="form"
      noValidate
      spacing={2}
      onSubmit={(event) => {
        void handleSubmit((values) => save(values, base))(event)
      }}
    >
      {trouble !== null && (
        <Alert severity="error" variant="outlined">
          {trouble}
        </Alert>
      )}
      {newer !== null && (
        <Conflict
          what={newer.route ? 'destination' : 'piece'}
          rows={rows}
          keepTheirs={() => {
            const now = stored()
            setBase(now)
            setNewer(null)
            reset({ ...(newer.code ? valuesOf(newer.code) : getValues()), destination: now.destination })
          }}
          takeMine={() => {
            void save(getValues(), stored())
          }}
        />
      )}
      <FormDestination
        control={control}
        name="destination"
        label="Destination"
        multiline
        maxRows={4}
        slotProps={{ htmlInput: { ref: destinationField } }}
        hint={
          code.routeCodes > 1
            ? `Shared: this changes where ${counted(code.routeCodes, 'code')} of “${code.routeName}” lead`
            : 'Live for the next scan after you save'
        }
      />
      <FormText control={control} name="name" label="Name" />
      <Stack direction="row" spacing={2}>
        <TagField control={control} name="medium" field="medium" label="Medium" />
        <TagField control={control} name="source" field="source" label="Source" />
      </Stack>
      <Stack direction="row" spacing={2}>
        <TagField control={control} name="content" field="content" label="Content" />
        <TagField control={control} name="term" field="term" label="Term" />
      </Stack>
      <OwnFields control={control} rules={rules.data?.value} />
      <FormText
        control={control}
        name="slug"
        label="Short link"
        hint="A printed link goes on working when you change it"
      />
      <SlugHint
        typed={slug}
        campaignId={code.campaignId}
        domainId={code.domainId}
        own={code.slug}
        choose={(chosen) => {
          setValue('slug', chosen, { shouldDirty: true })
        }}
      />
      <PlanFields control={control} />
      {code.state !== 'deleted' && (
        <FormChoice
          control={control}
          name="state"
          label="State"
          choices={(['live', 'paused'] as const).map((value) => ({ value, label: STATE_NAMES[value] }))}
        />
      )}
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button
          type="submit"
          variant="contained"
          disabled={!isDirty || changeCode.isPending || changeRoute.isPending}
        >
          Save
        </Button>
        {isDirty ? (
          <Button
            color="inherit"
            onClick={() => {
              reset(valuesOf(code))
              setTrouble(null)
              setNewer(null)
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
