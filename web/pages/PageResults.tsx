import {
  Button,
  LinearProgress,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import { quantity, share } from '@flimbo/core/formats'
import { pageResultsApi, type Page, type PageContent } from '@flimbo/core/pages'
import { writeTable } from '@flimbo/core/plan'
import { dayIn, shiftDay } from '@flimbo/core/time'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { DayField, FigureLink, Trouble, useNow } from '../ui/index.ts'
import { EventRows, type ShownRows } from './EventRows.tsx'
import { partLines, stayLines } from './partResults.ts'

const USUAL_DAYS = 30

/** What scans that were shown a page did on it: each counts once for each thing, however often they did it. */
export function PageResults({ page, content, zone }: { page: Page; content: PageContent; zone: string }) {
  const today = dayIn(zone, useNow())
  const [period, setPeriod] = useState({ from: shiftDay(today, 1 - USUAL_DAYS), to: today })
  const results = useAnswer(pageResultsApi.page, { params: { id: page.id }, query: period })
  const tallies = results.data?.tallies ?? []
  const opened = tallies.find(({ kind }) => kind === 'opened')?.scans ?? 0
  const lines = [...partLines(content, tallies), ...stayLines(tallies)]
  const [shown, show] = useState<ShownRows>(null)
  const exported = () => {
    const rows = [
      ['part', 'what', 'scans'],
      ['', 'Opened', String(opened)],
      ...lines.map(({ part, what, tally }) => [part, what, String(tally.scans)]),
    ]
    const text = writeTable(rows)
    const link = document.createElement('a')
    link.href = URL.createObjectURL(new Blob([`${text}\r\n`], { type: 'text/csv' }))
    link.download = `${page.name} ${period.from} ${period.to}.csv`
    link.click()
    URL.revokeObjectURL(link.href)
  }
  return (
    <Stack sx={{ gap: 2 }}>
      <Typography variant="h2">Results</Typography>
      <Stack direction="row" sx={{ gap: 1 }}>
        <DayField
          label="From"
          value={period.from}
          change={(from) => {
            if (from !== '') setPeriod({ from, to: period.to < from ? from : period.to })
          }}
        />
        <DayField
          label="To"
          value={period.to}
          change={(to) => {
            if (to !== '') setPeriod({ from: period.from > to ? to : period.from, to })
          }}
        />
      </Stack>
      {results.isError && <Trouble error={results.error} />}
      {!results.data && !results.isError && <LinearProgress aria-label="Reading" />}
      {results.data && opened === 0 && (
        <Typography>
          Nobody opened this page in these days. It is opened where a route leads to it.
        </Typography>
      )}
      {opened > 0 && (
        <>
          <Typography>
            Opened by <strong>{quantity(opened, 'scan')}</strong>. Each counts once for what it did, however
            often.
          </Typography>
          <Table size="small" aria-label="What was done on the page">
            <TableHead>
              <TableRow>
                <TableCell>Part</TableCell>
                <TableCell>What</TableCell>
                <TableCell align="right">Scans</TableCell>
                <TableCell align="right">Of all</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {lines.map(({ key, part, what, tally: { kind, part: id, item, scans } }) => (
                <TableRow key={key}>
                  <TableCell>{part}</TableCell>
                  <TableCell sx={{ whiteSpace: 'nowrap' }}>{what}</TableCell>
                  <TableCell align="right">
                    <FigureLink
                      count={scans}
                      of={`${part}, ${what}`}
                      show={() => {
                        show({ words: `${part}, ${what}`, filter: { kind, part: id, item } })
                      }}
                    />
                  </TableCell>
                  <TableCell align="right">{share(scans, opened)}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
          <Typography variant="body2" color="textSecondary">
            Links, files, contacts and events are counted without script; what was played and how long the
            page was seen need it.
          </Typography>
          <Button onClick={exported} sx={{ alignSelf: 'flex-start' }}>
            Download as CSV
          </Button>
          <EventRows scope={{ pageId: page.id, ...period }} zone={zone} shown={shown} show={show} />
        </>
      )}
    </Stack>
  )
}
