import {
  Link,
  MenuItem,
  Skeleton,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import { number, rateWithin } from '@flimbo/core/formats'
import { DIMENSIONS } from '@flimbo/core/dimensions'
import { intervalOf, resultsApi, type Figures } from '@flimbo/core/results'
import { dayIn } from '@flimbo/core/time'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { Sheet, Trouble, useNow } from '../ui/index.ts'
import { rowOf } from './filter.ts'
import { groupName } from './QuestionGroups.tsx'

const RATES_BY = ['piece', 'medium', 'country', 'city'] as const
type RatesBy = (typeof RATES_BY)[number]
/** Days of figures reach no further back. */
const EARLIEST = '2000-01-01'
const FIRST = 15
const rateInWords = (figures: Figures): string => {
  const rate = intervalOf('leadRate', figures)
  return rate ? rateWithin(rate) : 'no figure'
}

/** How many leads a scan brings: by piece, medium and place. */
export function LeadRates({
  campaignId,
  zone,
  period,
}: {
  campaignId: number
  zone: string
  period: { readonly from?: string; readonly to?: string }
}) {
  const [by, setBy] = useState<RatesBy>('piece')
  const { from = EARLIEST, to = dayIn(zone, useNow()) } = period
  const rates = useAnswer(resultsApi.ask, {
    body: { campaignId, from, to, questions: [{ what: 'leads', by: [by], top: FIRST }] },
  })
  const found = rates.data?.answers[0]
  return (
    <Sheet
      title="Leads a scan"
      aside={
        <TextField
          select
          size="small"
          label="By"
          value={by}
          sx={{ minWidth: 130 }}
          onChange={({ target }) => {
            setBy(target.value as RatesBy)
          }}
        >
          {RATES_BY.map((each) => (
            <MenuItem key={each} value={each}>
              {DIMENSIONS[each].label}
            </MenuItem>
          ))}
        </TextField>
      }
    >
      {rates.isError && <Trouble error={rates.error} />}
      {!rates.data && !rates.isError && <Skeleton variant="rounded" height={160} />}
      {found && (
        <>
          <Table size="small" aria-label="Leads a scan">
            <TableHead>
              <TableRow>
                <TableCell>{DIMENSIONS[by].label}</TableCell>
                <TableCell align="right">Scans</TableCell>
                <TableCell align="right">Leads</TableCell>
                <TableCell align="right">Leads a scan (95 %)</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {found.rows.map(({ keys: [key = ''], ...row }) => (
                <TableRow key={key}>
                  <TableCell component="th" scope="row" sx={{ fontWeight: 400 }}>
                    {groupName({ key, name: found.names[by]?.[key] ?? key }, by)}
                  </TableCell>
                  <TableCell align="right">{number(row.scans)}</TableCell>
                  <TableCell align="right">
                    {row.leads > 0 ? (
                      <Link
                        component={RouterLink}
                        to={`?${new URLSearchParams({ ...period, ...rowOf(by, key) }).toString()}`}
                      >
                        {number(row.leads)}
                      </Link>
                    ) : (
                      number(row.leads)
                    )}
                  </TableCell>
                  <TableCell align="right">{rateInWords(row)}</TableCell>
                </TableRow>
              ))}
              <TableRow>
                <TableCell component="th" scope="row">
                  All
                </TableCell>
                <TableCell align="right">{number(found.total.scans)}</TableCell>
                <TableCell align="right">{number(found.total.leads)}</TableCell>
                <TableCell align="right">{rateInWords(found.total)}</TableCell>
              </TableRow>
            </TableBody>
          </Table>
          {found.rowsTotal > FIRST && (
            <Typography variant="caption" color="textSecondary">
              and {number(found.rowsTotal - FIRST)} more, with fewer leads
            </Typography>
          )}
          {(by === 'city' || by === 'country') && (
            <Typography variant="caption" color="textSecondary" component="p">
              Places are approximate: of the network, not of the person.
            </Typography>
          )}
        </>
      )}
    </Sheet>
  )
}
