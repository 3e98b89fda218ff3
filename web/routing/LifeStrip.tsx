import { momentOf } from '@flimbo/core/time'
import { Box, ButtonBase, Typography } from '@mui/material'
import { lifeInWords, type ExitTally, type Life, type Names, type WholeRoute } from '@flimbo/core/routing'
import { day, moment, number, share } from '@flimbo/core/formats'
import { useNow } from '../ui/index.ts'

interface Props {
  readonly life: Life
  readonly taken: WholeRoute['taken']
  readonly forecast: WholeRoute['forecast']
  readonly exits: readonly ExitTally[]
  readonly zone: string
  readonly names: Names
  readonly choose: () => void
}

const dayOf = (at: number) => day(new Date(at).toISOString().slice(0, 10))

/** When the route takes scans and how many are left, as a strip; what bounds it in words. */
export function LifeStrip({ life, taken, forecast, zone, names, choose }: Props) {
  const now = useNow()
  const [starts, ends] = [
    life.startsAt === '' ? null : momentOf(life.zone, life.startsAt),
    life.endsAt === '' ? null : momentOf(life.zone, life.endsAt),
  ]
  const passed =
    starts !== null && ends !== null && ends > starts
      ? Math.min(1, Math.max(0, (now - starts) / (ends - starts)))
      : null
  const isEarly = starts !== null && now < starts
  const isOver = ends !== null && now >= ends
  const latest = forecast && (forecast.latest === null ? 'much later' : dayOf(forecast.latest))
  const outlook = forecast
    ? `; at this pace the limit is reached about ${dayOf(forecast.expected)} (${dayOf(forecast.earliest)} to ${latest ?? ''})`
    : ''
  return (
    <ButtonBase
      onClick={choose}
      sx={{
        display: 'block',
        width: '100%',
        textAlign: 'left',
        px: 2,
        py: 1,
        borderBottom: 1,
        borderColor: 'divider',
        fontFamily: 'inherit',
      }}
    >
      {lifeInWords(life, names).map((sentence) => (
        <Typography key={sentence} variant="body2">
          {sentence}
        </Typography>
      ))}
      {(isEarly || isOver) && (
        <Typography variant="body2" color="warning">
          {isEarly
            ? `It has not begun: it begins ${moment(starts, zone)}.`
            : 'It is over: no lane takes any scan.'}
        </Typography>
      )}
      {passed !== null && <Bar name={`${share(passed, 1)} of its time has passed`} part={passed} />}
      {life.limit !== null && taken && (
        <Bar
          name={`${number(taken.total)} of ${number(life.limit)} scans are used${taken.total >= life.limit ? '. The limit is reached.' : outlook}`}
          part={taken.total / life.limit}
        />
      )}
      {life.daily !== null && taken && (
        <Bar
          name={`${number(taken.today)} of ${number(life.daily)} scans of today are used`}
          part={taken.today / life.daily}
        />
      )}
    </ButtonBase>
  )
}

function Bar({ name, part }: { name: string; part: number }) {
  return (
    <Box sx={{ mt: 0.75 }}>
      <Typography variant="body2" color="textSecondary">
        {name}
      </Typography>
      <Box aria-hidden sx={{ height: 6, bgcolor: 'divider', borderRadius: 1, overflow: 'hidden' }}>
        <Box
          sx={{
            height: 1,
            width: `${String(Math.min(100, 100 * part))}%`,
            bgcolor: part >= 1 ? 'warning.main' : 'primary.main',
          }}
        />
      </Box>
    </Box>
  )
}
