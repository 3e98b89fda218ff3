import { Box, Button, Stack, Typography } from '@mui/material'
import { CHART_COLOURS, lastHourChart } from '@flimbo/core/charts'
import { cityAndCountry, number, quantity } from '@flimbo/core/formats'
import { scansApi } from '@flimbo/core/scans'
import { dayIn, shiftDay } from '@flimbo/core/time'
import { useMemo, useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { Chart, useChartColours } from '../charts/index.ts'
import { Sheet, useNow, When } from '../ui/index.ts'
import { TakeAway } from './TakeAway.tsx'
import type { AskedResults } from './useResults.ts'

/** How often it is asked while it is open. */
const TICK_MS = 2000
const NEWEST = 6
const HEIGHT_PX = 140

/** The last hour second by second, with the newest scans; closed until somebody wants it. */
export function LastHour({ asked }: { asked: AskedResults }) {
  const [isOpen, setOpen] = useState(false)
  return (
    <Sheet
      title="Live"
      pad={isOpen}
      aside={
        <Button
          color="inherit"
          aria-expanded={isOpen}
          onClick={() => {
            setOpen(!isOpen)
          }}
        >
          {isOpen ? 'Hide the last hour' : 'Show the last hour'}
        </Button>
      }
    >
      {isOpen && <Seconds asked={asked} />}
    </Sheet>
  )
}

function Seconds({ asked: { of, zone } }: { asked: AskedResults }) {
  const now = useNow()
  const colours = useChartColours()
  const hour = useAnswer(scansApi.lastHour, { query: of }, { refetchInterval: TICK_MS })
  const today = dayIn(zone, now)
  const newest = useAnswer(
    scansApi.list,
    { query: { ...of, from: shiftDay(today, -1), to: today, page: 0, pageSize: NEWEST, order: 'desc' } },
    { refetchInterval: TICK_MS },
  )
  const option = useMemo(
    () => (hour.data ? lastHourChart(hour.data.until, hour.data.seconds, zone, colours) : null),
    [hour.data, zone, colours],
  )
  if (!hour.data || !option) return <Typography variant="body2">Reading…</Typography>
  const { until, seconds, total } = hour.data
  const words = `${quantity(total, 'scan')} in the last hour`
  return (
    <Stack direction="row" sx={{ gap: 2, alignItems: 'flex-start' }}>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Stack direction="row" sx={{ alignItems: 'center' }}>
          <Typography variant="body2" color="textSecondary" sx={{ flex: 1 }}>
            {number(total)} in the last hour, second by second
          </Typography>
          <TakeAway
            title="Scans in the last hour"
            chart={() => ({
              option: lastHourChart(until, seconds, zone, CHART_COLOURS.light),
              height: HEIGHT_PX,
            })}
            table={() => ({
              headings: ['Second (UTC)', 'Scans'],
              // Seconds without scans are many, and say nothing.
              rows: seconds.map(([ago, scans]) => [
                new Date(until - ago * 1000).toISOString().slice(0, 19),
                scans,
              ]),
            })}
          />
        </Stack>
        <Chart option={option} height={HEIGHT_PX} label={words} />
      </Box>
      <Box component="ul" aria-label="Newest scans" sx={{ width: 360, m: 0, p: 0, listStyle: 'none' }}>
        {(newest.data?.rows ?? []).map((scan) => (
          <Typography key={scan.id} component="li" variant="body2" noWrap>
            <When at={scan.at} zone={zone} /> {scan.codeName}
            {scan.country === '' ? '' : `, ${cityAndCountry(scan)}`}
          </Typography>
        ))}
        {newest.data?.rows.length === 0 && (
          <Typography component="li" variant="body2" color="textSecondary">
            No scan since yesterday.
          </Typography>
        )}
      </Box>
    </Stack>
  )
}
