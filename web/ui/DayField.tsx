import CalendarIcon from '@mui/icons-material/CalendarTodayOutlined'
import { IconButton, InputAdornment, Popover, Skeleton, TextField } from '@mui/material'
import { day as written } from '@flimbo/core/formats'
import { isKnownDay, readDay, readMoment, type ReadDay } from '@flimbo/core/time'
import { lazy, Suspense, useRef, useState, type FocusEvent, type KeyboardEvent, type Ref } from 'react'

// The calendar is large, and most days are typed.
const DayCalendar = lazy(async () => ({ default: (await import('./DayCalendar.tsx')).DayCalendar }))

const DAY_LENGTH = 10
const momentWritten = (value: string) =>
  `${written(value.slice(0, DAY_LENGTH))}, ${value.slice(DAY_LENGTH + 1)}`

interface Props {
  label: string
  /** Empty for none. */
  value: string
  change: (value: string) => void
  /** What is wrong with it beyond how it is written. */
  fault?: string | undefined
  hint?: string | undefined
  inputRef?: Ref<HTMLInputElement> | undefined
  onBlur?: ((event: FocusEvent) => void) | undefined
  name?: string | undefined
}

/** A calendar day, such as `2026-07-03`: shown as 3 Jul 2026, typed in any usual way, or chosen from a calendar. */
export function DayField(props: Props) {
  return <WrittenField {...props} read={readDay} write={written} chosen={(picked) => picked} />
}

/** A day and a time of day on it, such as `2026-07-03T08:00`: shown as 3 Jul 2026, 08:00. */
export function MomentField(props: Props) {
  const time = props.value.slice(DAY_LENGTH + 1) || '00:00'
  return (
    <WrittenField
      {...props}
      read={readMoment}
      write={momentWritten}
      chosen={(picked) => `${picked}T${time}`}
    />
  )
}

function WrittenField({
  label,
  value,
  change,
  fault,
  hint,
  inputRef,
  onBlur,
  name,
  read,
  write,
  chosen,
}: Props & {
  read: (typed: string) => ReadDay
  write: (value: string) => string
  /** The value with another day. */
  chosen: (picked: string) => string
}) {
  /** What is being typed; null while the field shows its value. */
  const [typed, setTyped] = useState<string | null>(null)
  const [isLeft, setIsLeft] = useState(false)
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const field = useRef<HTMLDivElement>(null)
  const shown = typed ?? (value === '' ? '' : write(value))
  const reading = typed === null || typed.trim() === '' ? null : read(typed)
  const unread = isLeft && reading?.ok === false ? reading.sentence : undefined

  const type = (text: string) => {
    setTyped(text)
    setIsLeft(false)
    if (text.trim() === '') change('')
    const now = read(text)
    // A year that is half typed is none yet.
    if (now.ok && isKnownDay(now.value.slice(0, DAY_LENGTH)) && now.value !== value) change(now.value)
  }
  const leave = (event: FocusEvent) => {
    setIsLeft(true)
    if (reading === null || reading.ok) setTyped(null)
    onBlur?.(event)
  }
  const open = () => {
    setAnchor(field.current)
  }
  const pick = (picked: string) => {
    change(chosen(picked))
    setTyped(null)
    setAnchor(null)
  }
  return (
    <>
      <TextField
        ref={field}
        size="small"
        fullWidth
        label={label}
        name={name}
        value={shown}
        placeholder={write === written ? '3 Jul 2026' : '3 Jul 2026, 08:00'}
        error={(unread ?? fault) !== undefined}
        helperText={unread ?? fault ?? hint}
        onChange={({ target }) => {
          type(target.value)
        }}
        onBlur={leave}
        onKeyDown={(event: KeyboardEvent) => {
          if (event.altKey && event.key === 'ArrowDown') open()
        }}
        inputRef={inputRef}
        slotProps={{
          input: {
            endAdornment: (
              <InputAdornment position="end">
                <IconButton size="small" edge="end" aria-label="Open calendar" onClick={open}>
                  <CalendarIcon fontSize="inherit" />
                </IconButton>
              </InputAdornment>
            ),
          },
        }}
      />
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => {
          setAnchor(null)
        }}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        <Suspense fallback={<Skeleton variant="rectangular" width={320} height={334} />}>
          <DayCalendar value={value.slice(0, DAY_LENGTH)} choose={pick} />
        </Suspense>
      </Popover>
    </>
  )
}
