import { Alert, Button, Collapse, Stack, Typography } from '@mui/material'
import { codesApi, newCode } from '@flimbo/core/codes'
import { routesApi } from '@flimbo/core/routing'
import { useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { byContract, showFaults, useAnswer, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { FormChoice, FormText, Inspector } from '../ui/index.ts'
import { SlugHint } from './SlugHint.tsx'

interface Values {
  name: string; medium: string; source: string; content: string; term: string; place: string
  route: string; destination: string; slug: string
}
const FIELDS = ['name', 'medium', 'source', 'content', 'term', 'place', 'destination', 'slug'] as const
const OWN = 'own'
const ROUTES_OFFERED = 200

/** One form with a destination and a name makes a route with one code. */
export function NewPiece({ close, made }: { close: () => void; made: (id: number) => void }) {
  const campaign = useCampaign()
  const [more, setMore] = useState(false)
  const [trouble, setTrouble] = useState<string | null>(null)
  const routes = useAnswer(routesApi.list, { query: { campaignId: campaign.id, pageSize: ROUTES_OFFERED } })
  const create = useChange(codesApi.create)

  const sent = ({ route, destination, slug, ...rest }: Values) => ({
    ...rest,
    campaignId: campaign.id,
    ...(slug.trim() === '' ? {} : { slug }),
    ...(route === OWN ? { destination } : { routeId: Number(route) }),
  })
  const { control, handleSubmit, setError, setValue } = useForm<Values>({
    defaultValues: { name: '', medium: 'print', source: '', content: '', term: '', place: '', route: OWN, destination: '', slug: '' },
    resolver: byContract(newCode, sent),
  })
  const [route, slug] = useWatch({ control, name: ['route', 'slug'] })

  const submit = handleSubmit(async (values) => {
    setTrouble(null)
    try {
      made((await create.mutateAsync({ body: sent(values) })).id)
    } catch (error) {
      const rest = showFaults(error, setError, FIELDS)
      setTrouble(rest)
      if (rest === null) setMore(true)
    }
  })

  return (
    <Inspector title="Add a piece" close={close}>
      <Stack component="form" noValidate spacing={2} onSubmit={(event) => { void submit(event) }}>
        {trouble !== null && <Alert severity="error" variant="outlined">{trouble}</Alert>}
        <FormText control={control} name="name" label="Name of the piece" autoFocus hint="What it is and where it goes: Pier poster, east gate" />
        <Stack direction="row" spacing={2}>
          <FormText control={control} name="medium" label="Medium" hint="The broadest: print" />
          <FormText control={control} name="source" label="Source" hint="Which kind: pier-poster" />
        </Stack>
        <Typography variant="body2" color="textSecondary">Campaign: <Typography component="span" variant="mono">{campaign.utmCampaign}</Typography></Typography>
        {(routes.data?.total ?? 0) > 0 && (
          <FormChoice
            control={control} name="route" label="Leads"
            choices={[{ value: OWN, label: 'to an address of its own' }, ...(routes.data?.rows ?? []).map((each) => ({ value: String(each.id), label: `where “${each.name}” leads` }))]}
          />
        )}
        {route === OWN && <FormText control={control} name="destination" label="Destination" placeholder="https://" hint="You can change it for ever, even after printing" />}
        <Button color="inherit" onClick={() => { setMore(!more) }} aria-expanded={more} sx={{ alignSelf: 'flex-start' }}>{more ? 'Fewer fields' : 'More: content, term, place, short link'}</Button>
        <Collapse in={more} unmountOnExit>
          <Stack spacing={2}>
            <Stack direction="row" spacing={2}>
              <FormText control={control} name="content" label="Content" />
              <FormText control={control} name="term" label="Term" />
            </Stack>
            <FormText control={control} name="place" label="Place" hint="Where it hangs or lies" />
            <FormText control={control} name="slug" label="Short link" hint="Left empty, Flimbo chooses one without look-alike signs" />
            <SlugHint typed={slug} campaignId={campaign.id} choose={(chosen) => { setValue('slug', chosen, { shouldDirty: true }) }} />
          </Stack>
        </Collapse>
        <Button type="submit" variant="contained" size="medium" disabled={create.isPending}>Add the piece</Button>
      </Stack>
    </Inspector>
  )
}
