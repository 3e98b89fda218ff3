import { Box, Typography } from '@mui/material'
import { quantity, day, moment, number } from '@flimbo/core/formats'
import type { Results } from '@flimbo/core/results'
import type { Apart } from '@flimbo/core/scans'
import { Sheet, When } from '../ui/index.ts'

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

/** The figures of a period, what they were before, and what is kept apart from them. */
export function HowMany({ data: { period, before, ever, apart, zone } }: { data: Results }) {
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
          beside={quantity(ever.uniques, 'unique scan')}
        />
        <Box>
          <Typography variant="body2" color="textSecondary">
            Excluded from these figures
          </Typography>
          <Typography variant="body2">
            {apart.length === 0
              ? 'nothing'
              : apart
                  .map(({ kind, requests }) => quantity(requests, KINDS[kind], KINDS_MANY[kind]))
                  .join(', ')}
          </Typography>
        </Box>
      </Box>
    </Sheet>
  )
}
