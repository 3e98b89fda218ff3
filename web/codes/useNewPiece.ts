import { codesApi, newCode, seriesPiece, type NewCode } from '@flimbo/core/codes'
import { finalAddress, routesApi } from '@flimbo/core/routing'
import { taggingApi, utmOf } from '@flimbo/core/tagging'
import { useState } from 'react'
import { useForm, useWatch } from 'react-hook-form'
import { byContract, showFaults, useAnswer, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { readTyped, TYPED, type TypedValues } from './pieceValues.ts'

export type Values = TypedValues & {
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
  ...TYPED,
  'reference',
  'key',
  'from',
  'to',
  'digits',
] as const
/** Stands for a route of the piece’s own. */
export const OWN = 'own'
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

interface Given {
  readonly isSeries: boolean
  readonly close: () => void
  /** Is given the number of the piece that was made. */
  readonly made: (id: number) => void
}

/** The form of a new piece, or of a numbered series: checked by the contract, sent, and shown as a scan will end. */
export function useNewPiece({ isSeries, close, made }: Given) {
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
    resolver: byContract(isSeries ? seriesPiece : newCode, sent),
  })
  const values = useWatch({ control }) as Values

  const submit = handleSubmit(async (given) => {
    setTrouble(null)
    try {
      // The contract has just checked what was typed.
      const piece = sent(given) as NewCode
      if (!isSeries) {
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
  return {
    control,
    values,
    submit,
    trouble,
    isSending: create.isPending || issue.isPending,
    campaign,
    routes: routes.data?.rows ?? [],
    rules: rules.data?.value,
    tagged,
    /** Whether the fields that are seldom needed are shown; a refusal shows them, for it may be of one. */
    more,
    setMore,
    choose: (field: 'route' | 'slug', value: string) => {
      setValue(field, value, { shouldDirty: true })
    },
  }
}
