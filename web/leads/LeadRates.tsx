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
import { leadsApi, RATES_BY, type LeadRate, type RatesBy } from '@flimbo/core/leads'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { Sheet, Trouble } from '../ui/index.ts'
import { rowOf } from './filter.ts'
import { groupName } from './QuestionGroups.tsx'

const NAMES: Readonly<Record<RatesBy, string>> = {
  piece: 'Piece',
  medium: 'Medium',
  country: 'Country',
  city: 'City',
}
const FIRST = 15
const rateInWords = ({ rate }: LeadRate): string => (rate ? rateWithin(rate) : 'no figure')

/** How many leads a scan brings: by piece, medium and place. */
export function LeadRates({
  campaignId,
  period,
}: {
  campaignId: number
  period: { readonly from?: string; readonly to?: string }
}) {
  const [by, setBy] = useState<RatesBy>('piece')
  const rates = useAnswer(leadsApi.rates, { query: { campaignId, by, ...period } })
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
              {NAMES[each]}
            </MenuItem>
          ))}
        </TextField>
      }
    >
      {rates.isError && <Trouble error={rates.error} />}
      {!rates.data && !rates.isError && <Skeleton variant="rounded" height={160} />}
      {rates.data && (
        <>
          <Table size="small" aria-label="Leads a scan">
            <TableHead>
              <TableRow>
                <TableCell>{NAMES[by]}</TableCell>
                <TableCell align="right">Scans</TableCell>
                <TableCell align="right">Leads</TableCell>
                <TableCell align="right">Leads a scan (95 %)</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {rates.data.rows.slice(0, FIRST).map((row) => (
                <TableRow key={row.key}>
                  <TableCell component="th" scope="row" sx={{ fontWeight: 400 }}>
                    {groupName(row, by)}
                  </TableCell>
                  <TableCell align="right">{number(row.scans)}</TableCell>
                  <TableCell align="right">
                    {row.leads > 0 ? (
                      <Link
                        component={RouterLink}
                        to={`?${new URLSearchParams({ ...period, ...rowOf(by, row.key) }).toString()}`}
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
                <TableCell align="right">{number(rates.data.all.scans)}</TableCell>
                <TableCell align="right">{number(rates.data.all.leads)}</TableCell>
                <TableCell align="right">{rateInWords(rates.data.all)}</TableCell>
              </TableRow>
            </TableBody>
          </Table>
          {rates.data.rows.length > FIRST && (
            <Typography variant="caption" color="textSecondary">
              and {number(rates.data.rows.length - FIRST)} more, with fewer leads
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
