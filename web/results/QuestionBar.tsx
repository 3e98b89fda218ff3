import { ListSubheader, MenuItem, Stack } from '@mui/material'
import { DIMENSION_NAMES, DIMENSIONS, type Dimension, type DimensionKind } from '@flimbo/core/dimensions'
import { MEASURE_NAMES, MEASURES, isOfOther, type Against, type Measure } from '@flimbo/core/results'
import { campaignsApi } from '@flimbo/core/campaigns'
import { useAnswer } from '../api/index.ts'
import { Choice } from './Choice.tsx'
import { PeriodFields } from './PeriodFields.tsx'
import type { AskedResults } from './useResults.ts'

const GROUPS: readonly (readonly [DimensionKind, string])[] = [
  ['time', 'Time'],
  ['recurring', 'Time of the week'],
  ['piece', 'What was scanned'],
  ['scan', 'Who scanned it, and what came then'],
]
const AGAINST_LABELS: Readonly<Record<Against, string>> = {
  none: 'nothing',
  before: 'the days before',
  year: 'a year earlier',
  campaign: 'another campaign, same days',
  campaignFromStart: 'another campaign, from its start',
}

/** What is asked, as a sentence of fields: what, by what, when, and against what; without when where others say that. */
export function QuestionBar({
  asked,
  hasPeriod = true,
}: {
  asked: Pick<AskedResults, 'of' | 'view' | 'from' | 'to' | 'ask'>
  hasPeriod?: boolean
}) {
  const { of, view, from, to, ask } = asked
  const names = useAnswer(campaignsApi.names, {})
  const others = (names.data?.rows ?? []).filter(({ id }) => id !== of.campaignId)
  const canBeOther = of.campaignId !== undefined && others.length > 0
  const [first, second] = view.by
  return (
    <Stack
      direction="row"
      role="group"
      aria-label="Question"
      sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'center' }}
    >
      <Choice
        label="Show"
        value={view.what}
        width={160}
        change={(what) => {
          ask({ what: what as Measure })
        }}
      >
        {MEASURE_NAMES.map((name) => (
          <MenuItem key={name} value={name}>
            {MEASURES[name].label}
          </MenuItem>
        ))}
      </Choice>
      <Choice
        label="By"
        value={first ?? ''}
        width={170}
        change={(by) => {
          ask({ by: by === '' ? [] : [by as Dimension, ...(second && second !== by ? [second] : [])] })
        }}
      >
        <MenuItem value="">Time, automatic</MenuItem>
        {dimensionItems(null)}
      </Choice>
      <Choice
        label="And by"
        value={second ?? ''}
        width={150}
        disabled={first === undefined}
        change={(by) => {
          if (first) ask({ by: by === '' ? [first] : [first, by as Dimension] })
        }}
      >
        <MenuItem value="">nothing else</MenuItem>
        {dimensionItems(first ?? null)}
      </Choice>
      {hasPeriod && (
        <PeriodFields
          period={view.period}
          days={{ from, to }}
          change={(period) => {
            ask({ period })
          }}
        />
      )}
      <Choice
        label="Against"
        value={view.against}
        width={200}
        change={(against) => {
          // Its own names.
          const next = against as Against
          const otherCampaignId = isOfOther(next) ? (view.otherCampaignId ?? others[0]?.id ?? null) : null
          ask({ against: next, otherCampaignId })
        }}
      >
        {(Object.keys(AGAINST_LABELS) as Against[])
          .filter((each) => canBeOther || !isOfOther(each) || each === view.against)
          .map((each) => (
            <MenuItem key={each} value={each}>
              {AGAINST_LABELS[each]}
            </MenuItem>
          ))}
      </Choice>
      {isOfOther(view.against) && (
        <Choice
          label="Other campaign"
          value={others.some(({ id }) => id === view.otherCampaignId) ? String(view.otherCampaignId) : ''}
          width={200}
          change={(id) => {
            ask({ otherCampaignId: Number(id) })
          }}
        >
          {others.map(({ id, name }) => (
            <MenuItem key={id} value={String(id)}>
              {name}
            </MenuItem>
          ))}
        </Choice>
      )}
    </Stack>
  )
}

function dimensionItems(without: Dimension | null) {
  return GROUPS.flatMap(([kind, heading]) => [
    <ListSubheader key={`${kind} heading`}>{heading}</ListSubheader>,
    ...DIMENSION_NAMES.filter((name) => DIMENSIONS[name].kind === kind && name !== without).map((name) => (
      <MenuItem key={name} value={name}>
        {DIMENSIONS[name].label}
      </MenuItem>
    )),
  ])
}
