import {
  Box,
  Button,
  Chip,
  LinearProgress,
  Link,
  Skeleton,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import { resultsApi, type Results } from '@flimbo/core/results'
import { PLACE_NOTE, type Apart, type Scope } from '@flimbo/core/scans'
import { useMemo, useState } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { counted, day, moment, number } from '@flimbo/core/formats'
import { country, language, orUnknown, Sheet, Trouble, useNow, When } from '../ui/index.ts'
import { Breakdown } from './Breakdown.tsx'
import { Chart, useChartColours } from './Chart.tsx'
import { Controls } from './Controls.tsx'
import { periodOf } from './period.ts'
import { Rows } from './Rows.tsx'
import { ScopeChoice } from './ScopeChoice.tsx'
import { bucketNames, timeOption } from './timeOption.ts'

const KINDS: Record<Apart, string> = {
  head: 'look without opening',
  prefetch: 'fetch ahead',
  preview: 'link preview',
  crawler: 'crawler',
  test: 'test scan',
  onward: 'second step of a scan',
}
const KINDS_MANY: Record<Apart, string> = {
  head: 'looks without opening',
  prefetch: 'fetches ahead',
  preview: 'link previews',
  crawler: 'crawlers',
  test: 'test scans',
  onward: 'second steps of scans',
}

function scopeOf(codeId: number | undefined, routeId: number | undefined, campaignId: number): Scope {
  if (codeId) return { codeId }
  return routeId ? { routeId } : { campaignId }
}

/** What came of a campaign, a route or a piece, as questions from left to right. */
export function ResultsScreen() {
  const campaign = useCampaign()
  const now = useNow()
  const [address, setAddress] = useSearchParams()
  const [rowsShown, setRowsShown] = useState(address.has('exit'))
  const period = periodOf(address, campaign.zone, now)
  const [codeId, routeId] = [
    Number(address.get('code')) || undefined,
    Number(address.get('route')) || undefined,
  ]
  const scope = scopeOf(codeId, routeId, campaign.id)
  const { from, to, unit, compare } = period
  const channel = codeId ? undefined : (address.get('channel') ?? undefined)
  const exit = routeId && !codeId ? (address.get('exit') ?? undefined) : undefined
  const results = useAnswer(resultsApi.get, {
    query: { ...scope, channel, from, to, unit, compare: compare ? 'yes' : 'no' },
  })
  const { data } = results

  const change = (changes: Record<string, string | null>) => {
    setAddress(
      (old) => {
        for (const [name, value] of Object.entries(changes)) {
          if (value === null) old.delete(name)
          else old.set(name, value)
        }
        return old
      },
      { replace: true },
    )
  }

  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Results
        </Typography>
        <ScopeChoice
          scope={scope}
          choose={(kind, id) => {
            change({ code: kind === 'code' ? String(id) : null, route: kind === 'route' ? String(id) : null })
          }}
        />
      </Stack>
      <Controls period={period} change={change} />
      {channel !== undefined && (
        <Chip
          sx={{ mt: 1 }}
          label={`Only the channel: ${channel === '-' ? 'unassigned' : channel}`}
          onDelete={() => {
            change({ channel: null })
          }}
        />
      )}
      <Box sx={{ height: 4, mt: 1 }}>
        {results.isFetching && results.isPlaceholderData && (
          <LinearProgress aria-label="Reading" sx={{ height: 2 }} />
        )}
      </Box>
      {results.isError && (
        <Trouble
          error={results.error}
          again={() => {
            void results.refetch()
          }}
        />
      )}
      {!data && !results.isError && <Skeleton variant="rounded" height={480} />}
      {data && (
        <Stack spacing={2}>
          <HowMany data={data} />
          <OverTime data={data} />
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 2 }}>
            <Sheet title="Where?">
              <Box
                sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(260px, 1fr))', gap: 2 }}
              >
                <Breakdown
                  title="Country"
                  rows={data.countries}
                  all={data.period.tally.scans}
                  nameOf={({ key }) => country(key)}
                />
                <Breakdown
                  title="City"
                  rows={data.cities}
                  total={data.citiesTotal}
                  all={data.period.tally.scans}
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
            <Sheet title="On what?">
              <Box
                sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(260px, 1fr))', gap: 2 }}
              >
                <Breakdown
                  title="Device"
                  rows={data.devices}
                  all={data.period.tally.scans}
                  nameOf={({ key }) => orUnknown(key)}
                />
                <Breakdown
                  title="System"
                  rows={data.systems}
                  all={data.period.tally.scans}
                  nameOf={({ key }) => orUnknown(key)}
                />
                <Breakdown
                  title="Browser"
                  rows={data.browsers}
                  all={data.period.tally.scans}
                  nameOf={({ key }) => orUnknown(key)}
                />
                <Breakdown
                  title="Language"
                  rows={data.languages}
                  all={data.period.tally.scans}
                  nameOf={({ key }) => language(key)}
                />
              </Box>
            </Sheet>
          </Box>
          {codeId === undefined && (
            <Sheet title="Through which channel, which piece?">
              <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 2fr)', gap: 2 }}>
                <Breakdown
                  title="Channel"
                  rows={data.channels}
                  all={data.period.tally.scans}
                  nameOf={({ key }) => (
                    <Link
                      component="button"
                      sx={{ font: 'inherit' }}
                      onClick={() => {
                        change({ channel: key || '-' })
                      }}
                    >
                      {key || 'unassigned'}
                    </Link>
                  )}
                />
                <Breakdown
                  title="Piece"
                  rows={data.codes}
                  all={data.period.tally.scans}
                  nameOf={(row) => (
                    <Link
                      component={RouterLink}
                      to={`?code=${String((row as Results['codes'][number]).codeId)}`}
                    >
                      {row.key}
                    </Link>
                  )}
                />
              </Box>
            </Sheet>
          )}
          <Sheet
            title="The rows behind it"
            pad={false}
            aside={
              <Button
                onClick={() => {
                  setRowsShown(!rowsShown)
                }}
                aria-expanded={rowsShown}
              >
                {rowsShown ? 'Hide' : 'Show the rows'}
              </Button>
            }
          >
            {exit !== undefined && (
              <Chip
                sx={{ m: 1 }}
                label={
                  exit === 'otherwise'
                    ? 'Only scans that no lane took'
                    : `Only scans of the lane ${address.get('lane') ?? exit}`
                }
                onDelete={() => {
                  change({ exit: null, lane: null })
                }}
              />
            )}
            {rowsShown && (
              <Rows
                key={JSON.stringify([scope, channel, exit])}
                scope={{ ...scope, channel }}
                exit={exit}
                from={data.period.from}
                to={data.period.to}
                zone={data.zone}
              />
            )}
          </Sheet>
        </Stack>
      )}
    </Box>
  )
}

function against(now: number, before: number): string {
  if (before === 0) return now === 0 ? 'none before either' : 'none before'
  const part = (now - before) / before
  return `${part >= 0 ? '+' : '−'}${String(Math.abs(Math.round(part * 1000) / 10))} % against ${number(before)}`
}

function Figure({ name, value, beside }: { name: string; value: string; beside?: string | undefined }) {
  return (
    <Box>
      <Typography variant="body2" color="textSecondary">
        {name}
      </Typography>
      <Typography sx={{ fontSize: '1.75rem', fontWeight: 650, lineHeight: 1.15 }}>{value}</Typography>
      <Typography variant="body2" color="textSecondary">
        {beside ?? '\u00a0'}
      </Typography>
    </Box>
  )
}

function HowMany({ data: { period, before, ever, apart, zone } }: { data: Results }) {
  const { scans, uniques } = period.tally
  return (
    <Sheet
      title="How many?"
      aside={
        <Typography variant="body2" color="textSecondary">
          {day(period.from)} to {day(period.to)}, {zone}
          {before && ` · before: ${day(before.from)} to ${day(before.to)}`}
        </Typography>
      }
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(4, auto) minmax(0, 1fr)',
          columnGap: 5,
          alignItems: 'start',
        }}
      >
        <Figure
          name="Scans"
          value={number(scans)}
          beside={before ? against(scans, before.tally.scans) : undefined}
        />
        <Figure
          name="Unique scans"
          value={number(uniques)}
          beside={before ? against(uniques, before.tally.uniques) : 'sum of daily uniques'}
        />
        <Box>
          <Typography variant="body2" color="textSecondary">
            Last scan
          </Typography>
          <Typography sx={{ fontSize: '1.75rem', fontWeight: 650, lineHeight: 1.15 }}>
            <When at={ever.lastAt} zone={zone} />
          </Typography>
          <Typography variant="body2" color="textSecondary">
            {ever.lastAt === null ? 'nobody yet' : moment(ever.lastAt, zone)}
          </Typography>
        </Box>
        <Figure
          name="Since the beginning"
          value={number(ever.scans)}
          beside={counted(ever.uniques, 'unique scan')}
        />
        <Box>
          <Typography variant="body2" color="textSecondary">
            Excluded from these figures
          </Typography>
          <Typography variant="body2">
            {apart.length === 0
              ? 'nothing'
              : apart
                  .map(({ kind, requests }) => counted(requests, KINDS[kind], KINDS_MANY[kind]))
                  .join(', ')}
          </Typography>
        </Box>
      </Box>
    </Sheet>
  )
}

function OverTime({ data }: { data: Results }) {
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
          label={`Scans by ${data.unit}: ${counted(data.period.tally.scans, 'scan')} from ${day(data.period.from)} to ${day(data.period.to)}`}
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
