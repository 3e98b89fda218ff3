import AddIcon from '@mui/icons-material/Add'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Box, Button, IconButton, Stack, TextField, Typography } from '@mui/material'
import type { OpeningSlot, WeekHours } from '@flimbo/core/fields'
import { WEEKDAYS } from '@flimbo/core/time'
import { useState } from 'react'
import { DayField } from '../ui/index.ts'

const SLOTS_MAX = 4
const NEW_SLOT: OpeningSlot = { from: '09:00', upTo: '18:00' }
/** Spans of a day as they are written: 9-12:30, 14:00–18:00. */
const SPAN = /^(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|to)\s*(\d{1,2})(?:[:.](\d{2}))?$/

const clock = (hour: string, minute: string | undefined) => {
  const [h, m] = [Number(hour), Number(minute ?? '0')]
  if (h > 24 || m > 59 || (h === 24 && m > 0)) return null
  return `${String(h % 24).padStart(2, '0')}:${String(m).padStart(2, '0')}`
}

/** Reads the hours of a day as people write them; null where they cannot be read. */
export function readSlots(text: string): OpeningSlot[] | null {
  const spans = text
    .split(/[,;]|\band\b/)
    .map((each) => each.trim())
    .filter((each) => each !== '' && each.toLowerCase() !== 'closed')
  const slots = spans.map((each) => {
    const [, fromHour = '', fromMinute, toHour = '', toMinute] = SPAN.exec(each) ?? []
    const [from, upTo] =
      fromHour === '' ? [null, null] : [clock(fromHour, fromMinute), clock(toHour, toMinute)]
    return from === null || upTo === null ? null : { from, upTo }
  })
  const known = slots.filter((slot) => slot !== null)
  return known.length === slots.length && known.length <= SLOTS_MAX ? known : null
}
const writtenSlots = (slots: readonly OpeningSlot[]) =>
  slots.map(({ from, upTo }) => `${from}–${upTo}`).join(', ')

function SlotsField({
  label,
  slots,
  change,
}: {
  readonly label: string
  readonly slots: readonly OpeningSlot[]
  readonly change: (slots: OpeningSlot[]) => void
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const isWrong = typed !== null && readSlots(typed) === null
  return (
    <TextField
      size="small"
      label={label}
      placeholder="closed"
      value={typed ?? writtenSlots(slots)}
      error={isWrong}
      helperText={isWrong ? 'Write spans such as 9–12:30, 14–18; at most four.' : undefined}
      onChange={({ target }) => {
        setTyped(target.value)
        const read = readSlots(target.value)
        if (read) change(read)
      }}
      onBlur={() => {
        if (!isWrong) setTyped(null)
      }}
    />
  )
}

/** The hours of a week, a line a day, and the days that are otherwise. */
export function HoursField({
  value: { week, except },
  fault,
  change,
}: {
  readonly value: WeekHours
  readonly fault: string | undefined
  readonly change: (value: WeekHours) => void
}) {
  const setDay = (at: number, slots: OpeningSlot[]) => {
    change({ week: week.map((each, i) => (i === at ? slots : each)), except })
  }
  const setSpan = (at: number, part: Partial<WeekHours['except'][number]>) => {
    change({ week, except: except.map((each, i) => (i === at ? { ...each, ...part } : each)) })
  }
  const [monday = []] = week
  return (
    <Box role="group" aria-label="Hours">
      <Stack sx={{ gap: 1 }}>
        {WEEKDAYS.map((name, i) => (
          <SlotsField
            key={name}
            label={name}
            slots={week[i] ?? []}
            change={(slots) => {
              setDay(i, slots)
            }}
          />
        ))}
      </Stack>
      {fault !== undefined && (
        <Typography variant="caption" color="error" component="p">
          {fault}
        </Typography>
      )}
      <Button
        size="small"
        disabled={monday.length === 0}
        onClick={() => {
          change({ week: week.map((slots, i) => (i < 5 ? monday : slots)), except })
        }}
      >
        Use Monday’s hours until Friday
      </Button>
      <Typography variant="h3" sx={{ mt: 1.5, mb: 1 }}>
        Days that are otherwise
      </Typography>
      <Stack sx={{ gap: 1.5 }}>
        {except.map((span, i) => (
          <Stack key={i} sx={{ gap: 1 }} role="group" aria-label={`Exception ${String(i + 1)}`}>
            <Stack direction="row" sx={{ gap: 1 }}>
              <DayField
                label="From"
                value={span.from}
                change={(from) => {
                  setSpan(i, { from, to: span.to < from ? from : span.to })
                }}
              />
              <DayField
                label="To"
                value={span.to}
                change={(to) => {
                  setSpan(i, { to })
                }}
              />
              <IconButton
                size="small"
                aria-label={`Remove exception ${String(i + 1)}`}
                onClick={() => {
                  change({ week, except: except.filter((_each, at) => at !== i) })
                }}
              >
                <DeleteIcon fontSize="small" />
              </IconButton>
            </Stack>
            <SlotsField
              label="Hours"
              slots={span.slots}
              change={(slots) => {
                setSpan(i, { slots })
              }}
            />
            <TextField
              size="small"
              label="Note"
              value={span.note}
              slotProps={{ htmlInput: { maxLength: 80 } }}
              onChange={({ target }) => {
                setSpan(i, { note: target.value })
              }}
            />
          </Stack>
        ))}
      </Stack>
      <Button
        size="small"
        startIcon={<AddIcon />}
        onClick={() => {
          const today = new Date().toISOString().slice(0, 10)
          change({ week, except: [...except, { from: today, to: today, slots: [NEW_SLOT], note: '' }] })
        }}
      >
        Add exception
      </Button>
    </Box>
  )
}
