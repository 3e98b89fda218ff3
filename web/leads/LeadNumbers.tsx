import { Box, LinearProgress, MenuItem, Skeleton, Stack, TextField, Typography } from '@mui/material'
import { number, quantity } from '@flimbo/core/formats'
import { leadsApi, NUMBERS_BY, type AnsweredForm, type NumbersBy } from '@flimbo/core/leads'
import { dayIn, shiftDay } from '@flimbo/core/time'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Empty, Sheet, Trouble, useNow } from '../ui/index.ts'
import { LeadRates } from './LeadRates.tsx'
import { LeadsView } from './LeadsView.tsx'
import { QuestionBars } from './QuestionBars.tsx'
import { QuestionGroups } from './QuestionGroups.tsx'

const BY_NAMES: Readonly<Record<NumbersBy, string>> = {
  piece: 'Piece',
  country: 'Country',
  city: 'City',
  device: 'Device',
  month: 'Month',
}
const PERIODS = {
  '': 'All',
  '7': 'Last 7 days',
  '30': 'Last 30 days',
  '90': 'Last 90 days',
  '365': 'Last 365 days',
}

const formKey = ({ pageId, part }: AnsweredForm) => `${String(pageId)}.${part}`

/** What was answered, in numbers: each question of a form, and how many leads a scan brings. */
export function LeadNumbers() {
  const { id: campaignId, zone } = useCampaign()
  const [address, setAddress] = useSearchParams()
  const now = useNow()
  const forms = useAnswer(leadsApi.forms, { query: { campaignId } })
  const rows = forms.data?.rows ?? []
  const form = rows.find((each) => formKey(each) === address.get('form')) ?? rows[0]
  const by = NUMBERS_BY.find((each) => each === address.get('by'))
  const days = address.get('days') ?? ''
  const period: { from?: string; to?: string } =
    days in PERIODS && days !== ''
      ? { from: shiftDay(dayIn(zone, now), 1 - Number(days)), to: dayIn(zone, now) }
      : {}
  const set = (name: string, value: string) => {
    setAddress(
      (old) => {
        if (value === '') old.delete(name)
        else old.set(name, value)
        return old
      },
      { replace: true },
    )
  }
  const choice = (
    label: string,
    name: string,
    value: string,
    choices: readonly (readonly [string, string])[],
    width = 170,
  ) => (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      sx={{ minWidth: width }}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={({ target }) => {
        set(name, target.value)
      }}
    >
      {choices.map(([key, words]) => (
        <MenuItem key={key} value={key}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  )
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h1">Leads</Typography>
        <LeadsView shown="numbers" />
        <Box sx={{ flex: 1 }} />
        {form &&
          choice(
            'Form on',
            'form',
            formKey(form),
            rows.map((each) => [
              formKey(each),
              `${each.pageName || 'A page that is gone'} (${number(each.answers)})`,
            ]),
            220,
          )}
        {choice('Period', 'days', days in PERIODS ? days : '', Object.entries(PERIODS))}
        {choice('Compared by', 'by', by ?? '', [
          ['', 'Nothing'],
          ...NUMBERS_BY.map((each) => [each, BY_NAMES[each]] as const),
        ])}
      </Stack>
      {forms.isError && <Trouble error={forms.error} />}
      {!forms.data && !forms.isError && <Skeleton variant="rounded" height={320} />}
      {forms.data && !form && (
        <Sheet>
          <Empty
            title="Nobody has answered yet"
            text="What is answered to each question stands here in numbers, once somebody has answered a form."
          />
        </Sheet>
      )}
      {form && <Questions form={form} campaignId={campaignId} by={by} period={period} />}
      {form && <LeadRates campaignId={campaignId} zone={zone} period={period} />}
    </Box>
  )
}

function Questions({
  form: { pageId, part },
  campaignId,
  by,
  period,
}: {
  form: AnsweredForm
  campaignId: number
  by: NumbersBy | undefined
  period: { readonly from?: string; readonly to?: string }
}) {
  const numbers = useAnswer(leadsApi.numbers, {
    query: { campaignId, pageId, part, ...period, ...(by === undefined ? {} : { by }) },
  })
  if (numbers.isError) return <Trouble error={numbers.error} />
  if (!numbers.data) return <Skeleton variant="rounded" height={320} />
  const { total, questions, groups } = numbers.data
  const narrowed = { page: String(pageId), ...period }
  return (
    <>
      <Typography variant="body2" color="textSecondary" sx={{ mb: 0.5 }}>
        {quantity(total, 'lead')}. Shares are of those who answered the question, with 95 % intervals.
      </Typography>
      <Box sx={{ height: 4, mb: 1 }}>
        {numbers.isFetching && numbers.isPlaceholderData && (
          <LinearProgress aria-label="Counting" sx={{ height: 2 }} />
        )}
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: by === undefined ? 'repeat(2, minmax(0, 1fr))' : 'minmax(0, 1fr)',
          gap: 2,
          mb: 2,
          alignItems: 'start',
        }}
      >
        {questions.map((each) => (
          <Sheet
            key={each.question}
            title={each.title}
            aside={
              <Typography variant="body2" color="textSecondary">
                {number(each.answered)} of {number(total)} answered
              </Typography>
            }
          >
            {by === undefined || each.kind === 'answered' || each.kind === 'words' ? (
              <QuestionBars numbers={each} narrowed={narrowed} />
            ) : (
              <QuestionGroups question={each} groups={groups} by={by} narrowed={narrowed} />
            )}
          </Sheet>
        ))}
      </Box>
    </>
  )
}
