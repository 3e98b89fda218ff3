import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { quantity, day, moment, number } from '@flimbo/core/formats'
import type { Results } from '@flimbo/core/results'
import { useMemo, useState } from 'react'
import { Sheet } from '../ui/index.ts'
import { Chart, useChartColours } from './Chart.tsx'
import { bucketNames, timeOption } from './timeOption.ts'

/** Scans over time as a chart or a table, with the moments the destination was changed. */
export function OverTime({ data }: { data: Results }) {
  const colours = useChartColours()
  const [asTable, setAsTable] = useState(false)
  const option = useMemo(() => timeOption(data, colours), [data, colours])
  return (
    <Sheet
      title={`When? Scans by ${data.unit}`}
      aside={
        <Button
          onClick={() => {
            setAsTable(!asTable)
          }}
          aria-expanded={asTable}
        >
          {asTable ? 'As a chart' : 'As a table'}
        </Button>
      }
    >
      {asTable ? (
        <TimeTable data={data} />
      ) : (
        <Chart
          option={option}
          height={260}
          label={`Scans by ${data.unit}: ${quantity(data.period.tally.scans, 'scan')} from ${day(data.period.from)} to ${day(data.period.to)}`}
        />
      )}
      {data.changes.length > 0 && (
        <Box
          component="ol"
          aria-label="Destination changes"
          sx={{ listStyle: 'none', m: 0, mt: 1, p: 0, maxHeight: 110, overflowY: 'auto' }}
        >
          {data.changes.map((each, i) => (
            <Typography
              component="li"
              variant="body2"
              key={`${String(each.routeId)}-${String(each.at)}`}
              noWrap
            >
              <Box
                component="span"
                sx={{ color: 'warning.main', fontWeight: 650, display: 'inline-block', minWidth: 20 }}
              >
                {i + 1}
              </Box>
              {moment(each.at, data.zone)}: {each.by} made “{each.routeName}” lead to{' '}
              <Typography component="span" variant="mono">
                {each.is}
              </Typography>
            </Typography>
          ))}
        </Box>
      )}
    </Sheet>
  )
}

const TABLE_ROWS = 400

function TimeTable({ data }: { data: Results }) {
  const names = bucketNames(data)
  const rows = data.period.buckets
  return (
    <Box sx={{ maxHeight: 300, overflow: 'auto' }} tabIndex={0} role="region" aria-label="Scans over time">
      <Table size="small" stickyHeader>
        <TableHead>
          <TableRow>
            <TableCell>{data.unit}</TableCell>
            <TableCell align="right">Scans</TableCell>
            <TableCell align="right">Unique scans</TableCell>
            {data.before && <TableCell align="right">Scans, period before</TableCell>}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.slice(0, TABLE_ROWS).map(({ start, scans, uniques }, i) => (
            <TableRow key={start}>
              <TableCell>{names[i]}</TableCell>
              <TableCell align="right">{number(scans)}</TableCell>
              <TableCell align="right">{number(uniques)}</TableCell>
              {data.before && (
                <TableCell align="right">{number(data.before.buckets[i]?.scans ?? 0)}</TableCell>
              )}
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {rows.length > TABLE_ROWS && (
        <Typography variant="body2" color="textSecondary" sx={{ p: 1 }}>
          The first {number(TABLE_ROWS)} of {number(rows.length)}; choose a larger unit or fewer days to see
          the rest.
        </Typography>
      )}
    </Box>
  )
}
