import { Box, Link, Typography } from '@mui/material'
import { number, rateWithin } from '@flimbo/core/formats'
import {
  intervalOf,
  resultsApi,
  ROWS_MAX,
  type AnswerRow,
  type Results,
  type Share,
} from '@flimbo/core/results'
import { PLACE_NOTE } from '@flimbo/core/scans'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { country, language, orUnknown, Sheet } from '../ui/index.ts'
import { Breakdown } from './Breakdown.tsx'

const SIDE_BY_SIDE = { display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(260px, 1fr))', gap: 2 }

/** Countries and cities, as far as a network address tells. */
export function Where({ data }: { data: Results }) {
  const all = data.period.tally.scans
  return (
    <Sheet title="Where?">
      <Box sx={SIDE_BY_SIDE}>
        <Breakdown title="Country" rows={data.countries} all={all} nameOf={({ key }) => country(key)} />
        <Breakdown
          title="City"
          rows={data.cities}
          total={data.citiesTotal}
          all={all}
          nameOf={({ key }) => orUnknown(key)}
          note={PLACE_NOTE}
        />
      </Box>
      <Typography variant="caption">
        <Link href="https://db-ip.com" target="_blank" rel="noreferrer">
          IP Geolocation by DB-IP
        </Link>
        , CC BY 4.0
      </Typography>
    </Sheet>
  )
}

/** Devices, systems, browsers and languages. */
export function OnWhat({ data }: { data: Results }) {
  const all = data.period.tally.scans
  return (
    <Sheet title="On what?">
      <Box sx={SIDE_BY_SIDE}>
        <Breakdown title="Device" rows={data.devices} all={all} nameOf={({ key }) => orUnknown(key)} />
        <Breakdown title="System" rows={data.systems} all={all} nameOf={({ key }) => orUnknown(key)} />
        <Breakdown title="Browser" rows={data.browsers} all={all} nameOf={({ key }) => orUnknown(key)} />
        <Breakdown title="Language" rows={data.languages} all={all} nameOf={({ key }) => language(key)} />
      </Box>
    </Sheet>
  )
}

/** Channels and pieces; choosing a channel narrows everything to it. */
export function Through({
  data,
  campaignId,
  narrow,
}: {
  data: Results
  campaignId: number
  narrow: (channel: string) => void
}) {
  const all = data.period.tally.scans
  const { from, to } = data.period
  const rates = useAnswer(resultsApi.ask, {
    body: { campaignId, from, to, questions: [{ what: 'leads', by: ['piece'], top: ROWS_MAX }] },
  }).data?.answers[0]
  const leadsOf = new Map((rates?.rows ?? []).map((row) => [Number(row.keys[0]), row]))
  const rowOf = (row: Share) => leadsOf.get((row as Results['codes'][number]).codeId)
  const leads = [
    {
      heading: 'Leads',
      width: 56,
      cell: (row: Share) => <LeadsLink row={rowOf(row)} from={from} to={to} />,
    },
    {
      heading: 'Leads a scan (95 %)',
      width: 190,
      cell: (row: Share) => rateWithin(rateOf(rowOf(row))),
    },
  ]
  return (
    <Sheet title="Through which channel, which piece?">
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 2fr)', gap: 2 }}>
        <Breakdown
          title="Channel"
          rows={data.channels}
          all={all}
          nameOf={({ key }) => (
            <Link
              component="button"
              sx={{ font: 'inherit' }}
              onClick={() => {
                narrow(key || '-')
              }}
            >
              {key || 'unassigned'}
            </Link>
          )}
        />
        <Breakdown
          title="Piece"
          rows={data.codes}
          all={all}
          more={rates && rates.total.leads > 0 ? leads : []}
          nameOf={(row) => (
            <Link component={RouterLink} to={`?code=${String((row as Results['codes'][number]).codeId)}`}>
              {row.key}
            </Link>
          )}
        />
      </Box>
    </Sheet>
  )
}

const rateOf = (row: AnswerRow | undefined) => row && intervalOf('leadRate', row)

/** How many leads a piece brought, and the way to them. */
function LeadsLink({ row, from, to }: { row: AnswerRow | undefined; from: string; to: string }) {
  if (!row || row.leads === 0) return <>0</>
  return (
    <Link
      component={RouterLink}
      to={`../leads?${new URLSearchParams({ code: row.keys[0] ?? '', from, to }).toString()}`}
      relative="path"
    >
      {number(row.leads)}
    </Link>
  )
}
