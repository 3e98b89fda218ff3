import { Box, ButtonBase, Typography } from '@mui/material'
import { keyLabel, measureText } from '@flimbo/core/charts'
import { RECURRING_KEYS } from '@flimbo/core/dimensions'
import { measured, type Answer, type Measure } from '@flimbo/core/results'
import { useState, type KeyboardEvent } from 'react'

const { weekday: DAYS, hourOfDay: HOURS } = RECURRING_KEYS
const STEPS: Readonly<Record<string, readonly [days: number, hours: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
}

/** Hours of the week, the darker the more: arrow keys go from hour to hour, choosing one narrows everything else to it. */
export function WeekGrid({
  what,
  answer: { rows },
  currency,
  chosen,
  toggle,
}: {
  what: Measure
  answer: Answer
  currency: string
  chosen: readonly string[]
  toggle: (key: string) => void
}) {
  const [[day, hour], setAt] = useState<readonly [number, number]>([0, 0])
  const values = new Map(rows.map((row) => [row.keys[0] ?? '', measured(what, row)]))
  const most = Math.max(0, ...[...values.values()].map((value) => value ?? 0))
  function step(event: KeyboardEvent<HTMLElement>) {
    const by = STEPS[event.key]
    if (!by) return
    event.preventDefault()
    const next = [
      (day + by[0] + DAYS.length) % DAYS.length,
      (hour + by[1] + HOURS.length) % HOURS.length,
    ] as const
    setAt(next)
    event.currentTarget
      .querySelector<HTMLElement>(`[data-at="${String(next[0])} ${String(next[1])}"]`)
      ?.focus()
  }
  return (
    <Box>
      <Box
        role="grid"
        aria-label="Hours of the week"
        onKeyDown={step}
        sx={{
          display: 'grid',
          gridTemplateColumns: `34px repeat(${String(HOURS.length)}, minmax(0, 1fr))`,
          gap: '1px',
        }}
      >
        {DAYS.map((dayKey, d) => (
          <Box key={dayKey} role="row" sx={{ display: 'contents' }}>
            <Typography role="rowheader" variant="caption" color="textSecondary">
              {keyLabel('weekday', dayKey)}
            </Typography>
            {HOURS.map((hourKey, h) => {
              const key = `${dayKey}-${hourKey}`
              const value = values.get(key) ?? null
              const isChosen = chosen.includes(key)
              return (
                <Box key={key} role="gridcell" aria-selected={isChosen} sx={{ minWidth: 0 }}>
                  <ButtonBase
                    data-at={`${String(d)} ${String(h)}`}
                    tabIndex={d === day && h === hour ? 0 : -1}
                    aria-label={`${keyLabel('hourOfWeek', key)}: ${measureText(what, value, currency)}`}
                    title={`${keyLabel('hourOfWeek', key)}: ${measureText(what, value, currency)}`}
                    onFocus={() => {
                      setAt([d, h])
                    }}
                    onClick={() => {
                      toggle(key)
                    }}
                    sx={{
                      width: '100%',
                      height: 22,
                      borderRadius: '2px',
                      bgcolor: 'action.hover',
                      outline: isChosen ? '2px solid' : 'none',
                      outlineColor: 'warning.main',
                      '&.Mui-focusVisible': { outline: '2px solid', outlineColor: 'text.primary', zIndex: 1 },
                    }}
                  >
                    <Box
                      aria-hidden
                      sx={{
                        width: '100%',
                        height: '100%',
                        borderRadius: '2px',
                        bgcolor: 'primary.main',
                        opacity: most === 0 ? 0 : (value ?? 0) / most,
                      }}
                    />
                  </ButtonBase>
                </Box>
              )
            })}
          </Box>
        ))}
      </Box>
      <Box
        aria-hidden
        sx={{
          display: 'grid',
          gridTemplateColumns: `34px repeat(4, minmax(0, 1fr))`,
          color: 'text.secondary',
        }}
      >
        <span />
        {[0, 6, 12, 18].map((each) => (
          <Typography key={each} variant="caption">
            {each}:00
          </Typography>
        ))}
      </Box>
    </Box>
  )
}
