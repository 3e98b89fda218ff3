import { Alert, Button, Collapse, Stack, Typography } from '@mui/material'
import { codesApi, newCode, seriesPiece, type NewCode } from '@flimbo/core/codes'
import { finalAddress, routesApi } from '@flimbo/core/routing'
import { taggingApi, utmOf } from '@flimbo/core/tagging'
import { useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { byContract, showFaults, useAnswer, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { RouteChoice } from '../routing/index.ts'
import { FormDestination, FormText, Inspector } from '../ui/index.ts'
import { FinalAddress } from './FinalAddress.tsx'
import { OwnFields, PlanFields } from './PlanFields.tsx'
import { readTyped, type TypedValues } from './pieceValues.ts'
import { SlugHint } from './SlugHint.tsx'
import { TagField } from './TagField.tsx'

type Values = TypedValues & {
  name: string
  medium: string
  source: string
  content: string
  term: string
  place: string
  extra: Record<string, string>
  level: 'L' | 'M' | 'Q' | 'H'
  route: string
  destination: string
  slug: string
  reference: string
  key: string
  note: string
  from: string
  to: string
  digits: string
}
const FIELDS = [
  'name',
  'medium',
  'source',
  'content',
  'term',
  'place',
  'destination',
  'slug',
  'sizeMm',
  'viewingM',
  'latitude',
  'longitude',
  'printRun',
  'cost',
  'liveOn',
  'downOn',
  'reference',
  'key',
  'from',
  'to',
  'digits',
] as const
const OWN = 'own'
const EMPTY: Values = {
  name: '',
  medium: '',
  source: '',
  content: '',
  term: '',
  place: '',
  extra: {},
  level: 'M',
  route: OWN,
  destination: '',
  slug: '',
  reference: '',
  key: '',
  note: '',
  sizeMm: '30',
  viewingM: '',
  latitude: '',
  longitude: '',
  printRun: '',
  cost: '',
  liveOn: '',
  downOn: '',
  from: '1',
  to: '10',
  digits: '3',
}

/** One form with a destination and a name makes a route with one code; or, as a series, a numbered lot of them on one route. */
export function NewPiece({
  series,
  close,
  made,
}: {
  series: boolean
  close: () => void
  made: (id: number) => void
}) {
  const campaign = useCampaign()
  const [more, setMore] = useState(false)
  const [trouble, setTrouble] = useState<string | null>(null)
  const routes = useAnswer(routesApi.names, { query: { campaignId: campaign.id } })
  const rules = useAnswer(taggingApi.rules, {})
  const create = useChange(codesApi.create)
  const issue = useChange(codesApi.series)

  const sent = ({ route, destination, slug, from: _from, to: _to, digits: _digits, ...rest }: Values) => ({
    ...readTyped(rest),
    campaignId: campaign.id,
    ...(slug.trim() === '' ? {} : { slug }),
    ...(route === OWN ? { destination } : { routeId: Number(route) }),
  })
  const { control, handleSubmit, setError, setValue } = useForm<Values>({
    defaultValues: EMPTY,
    resolver: byContract(series ? seriesPiece : newCode, sent),
  })
  const values = useWatch({ control }) as Values

  const submit = handleSubmit(async (given) => {
    setTrouble(null)
    try {
      // The contract has just checked what was typed.
      const piece = sent(given) as NewCode
      if (!series) {
        made((await create.mutateAsync({ body: piece })).id)
        return
      }
      await issue.mutateAsync({
        body: {
          piece,
          numbers: { from: Number(given.from), to: Number(given.to), digits: Number(given.digits) },
        },
      })
      close()
    } catch (error) {
      const rest = showFaults(error, setError, FIELDS)
      setTrouble(rest)
      if (rest === null) setMore(true)
    }
  })

  const leads =
    values.route === OWN
      ? values.destination
      : (routes.data?.rows.find(({ id }) => String(id) === values.route)?.destination ?? '')
  const tagged = finalAddress(leads, utmOf(values, campaign.utmCampaign), values.extra)
  return (
    <Inspector title={series ? 'New numbered series' : 'New piece'} close={close}>
      <Stack
        component="form"
        noValidate
        spacing={2}
        onSubmit={(event) => {
          void submit(event)
        }}
      >
        {trouble !== null && (
          <Alert severity="error" variant="outlined">
            {trouble}
          </Alert>
        )}
        {series && (
          <>
            <Typography variant="body2" color="textSecondary">
              Write {'{n}'} where the number goes, in any text: the name “Table card {'{n}'}” makes Table card
              001, 002 and so on. All lead to one place, each with a short link of its own.
            </Typography>
            <Stack direction="row" spacing={2}>
              <FormText control={control} name="from" label="From" />
              <FormText control={control} name="to" label="To" />
              <FormText control={control} name="digits" label="Digits" />
            </Stack>
          </>
        )}
        <FormText
          control={control}
          name="name"
          label={series ? 'Name of the pieces' : 'Name of the piece'}
          autoFocus
          hint={series ? 'Table card {n}' : 'What it is and where it goes: Pier poster, east gate'}
        />
        <Stack direction="row" spacing={2}>
          <TagField
            control={control}
            name="medium"
            field="medium"
            label="Medium"
            hint="The broadest: print"
          />
          <TagField
            control={control}
            name="source"
            field="source"
            label="Source"
            hint="Which kind: pier-poster"
          />
        </Stack>
        <Typography variant="body2" color="textSecondary">
          Campaign:{' '}
          <Typography component="span" variant="mono">
            {campaign.utmCampaign}
          </Typography>
        </Typography>
        <OwnFields control={control} rules={rules.data?.value} />
        {(routes.data?.rows.length ?? 0) > 0 && (
          <RouteChoice
            label="Leads"
            none={series ? 'to an address of their own' : 'to an address of its own'}
            routes={routes.data?.rows ?? []}
            value={values.route === OWN ? null : Number(values.route)}
            change={(id) => {
              setValue('route', id === null ? OWN : String(id), { shouldDirty: true })
            }}
          />
        )}
        {values.route === OWN && (
          <FormDestination
            control={control}
            name="destination"
            label="Destination"
            hint="You can change it for ever, even after printing"
          />
        )}
        {tagged && (
          <div>
            <Typography variant="body2" color="textSecondary">
              A scan will end at
            </Typography>
            <FinalAddress
              code={{ finalAddress: tagged.address, clashes: [...tagged.clashes], extra: values.extra }}
            />
          </div>
        )}
        <Button
          color="inherit"
          onClick={() => {
            setMore(!more)
          }}
          aria-expanded={more}
          sx={{ alignSelf: 'flex-start' }}
        >
          {more ? 'Fewer fields' : 'More: content, term, short link, print, place, cost'}
        </Button>
        <Collapse in={more} unmountOnExit>
          <Stack spacing={2}>
            <Stack direction="row" spacing={2}>
              <TagField control={control} name="content" field="content" label="Content" />
              <TagField control={control} name="term" field="term" label="Term" />
            </Stack>
            <FormText
              control={control}
              name="slug"
              label="Short link"
              hint={
                series
                  ? 'Such as CARD-{n}; left empty, Flimbo chooses them'
                  : 'Left empty, Flimbo chooses one without look-alike signs'
              }
            />
            {!series && (
              <SlugHint
                typed={values.slug}
                campaignId={campaign.id}
                choose={(chosen) => {
                  setValue('slug', chosen, { shouldDirty: true })
                }}
              />
            )}
            <PlanFields control={control} />
          </Stack>
        </Collapse>
        <Button
          type="submit"
          variant="contained"
          size="medium"
          disabled={create.isPending || issue.isPending}
        >
          {series ? 'Add series' : 'Add piece'}
        </Button>
      </Stack>
    </Inspector>
  )
}
