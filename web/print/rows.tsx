import { Box, InputBase, MenuItem, Select, Typography } from '@mui/material'
import { useEffect, useId, useState, type ReactNode } from 'react'

/** A part of the job sheet: a heading over ruled lines. */
export function Part({ title, aside, children }: { title: string; aside?: ReactNode; children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 1.5 }}>
      <Box
        sx={{
          display: 'flex',
          alignItems: 'baseline',
          justifyContent: 'space-between',
          borderBottom: 2,
          borderColor: 'text.primary',
          pb: 0.25,
        }}
      >
        <Typography variant="h3" component="h2">
          {title}
        </Typography>
        {aside}
      </Box>
      {children}
    </Box>
  )
}

/** One ruled line of the job sheet: what it is, and what is filled in. */
export function Row({
  name,
  labelFor,
  labelId,
  children,
}: {
  name: string
  labelFor?: string
  labelId?: string
  children: ReactNode
}) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: '104px minmax(0, 1fr)',
        alignItems: 'center',
        minHeight: 34,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Typography
        variant="body2"
        color="textSecondary"
        component={labelFor === undefined ? 'span' : 'label'}
        id={labelId}
        {...(labelFor === undefined ? {} : { htmlFor: labelFor })}
      >
        {name}
      </Typography>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap', minWidth: 0 }}>
        {children}
      </Box>
    </Box>
  )
}

const FIELD = {
  fontSize: '0.8125rem',
  px: 0.75,
  border: 1,
  borderColor: 'divider',
  borderRadius: 0.75,
  bgcolor: 'background.paper',
  '&.Mui-focused': { borderColor: 'primary.main' },
  '&.Mui-error': { borderColor: 'error.main' },
} as const

/** A choice among a few. */
export function Choice<T extends string>({
  label,
  value,
  choices,
  set,
}: {
  label: string
  value: T
  choices: readonly { readonly value: T; readonly words: string }[]
  set: (value: T) => void
}) {
  return (
    <Select
      displayEmpty
      value={value}
      input={<InputBase sx={{ ...FIELD, '& .MuiSelect-select': { py: 0.25 } }} />}
      onChange={(event) => {
        set(event.target.value as T)
      }}
      slotProps={{ input: { 'aria-label': label } }}
    >
      {choices.map((choice) => (
        <MenuItem key={choice.value} value={choice.value} dense>
          {choice.words}
        </MenuItem>
      ))}
    </Select>
  )
}

/** What was typed as a number, with a comma or a point; null where it is none. */
export function numberIn(text: string): number | null {
  const plain = text.trim().replace(',', '.')
  if (plain === '') return null
  const value = Number(plain)
  return Number.isFinite(value) ? value : null
}

const written = (value: number | null) => (value === null ? '' : String(value))

/** A number with its unit; what is not one, or lies beyond its bounds, is not taken and says so. */
export function NumberField({
  label,
  value,
  min,
  max,
  unit,
  isOptional = false,
  set,
  step = 1,
  width = 64,
}: {
  label: string
  value: number | null
  min: number
  max: number
  unit: string
  isOptional?: boolean
  step?: number
  width?: number
  set: (value: number | null) => void
}) {
  const [text, setText] = useState(written(value))
  const id = useId()
  // What is set from elsewhere, such as by a fix or the way back, shows; what is being typed stays as it is typed.
  useEffect(() => {
    setText((old) => (numberIn(old) === value ? old : written(value)))
  }, [value])
  const typed = numberIn(text)
  const isEmpty = text.trim() === ''
  const isWrong = isEmpty ? !isOptional : typed === null || typed < min || typed > max
  const take = (next: string) => {
    setText(next)
    const read = numberIn(next)
    if (next.trim() === '') {
      if (isOptional) set(null)
    } else if (read !== null && read >= min && read <= max) set(read)
  }
  return (
    <>
      <InputBase
        value={text}
        error={isWrong}
        sx={{ ...FIELD, width, '& input': { py: 0.25, textAlign: 'right' } }}
        onChange={(event) => {
          take(event.target.value)
        }}
        onKeyDown={(event) => {
          const by = { ArrowUp: step, ArrowDown: -step }[event.key]
          if (by === undefined || value === null) return
          event.preventDefault()
          const next = Math.round(Math.min(max, Math.max(min, value + by)) * 1000) / 1000
          setText(String(next))
          set(next)
        }}
        onBlur={() => {
          if (isWrong) setText(written(value))
        }}
        inputProps={{
          'aria-label': label,
          inputMode: 'decimal',
          'aria-invalid': isWrong,
          'aria-describedby': isWrong ? id : undefined,
        }}
      />
      <Typography variant="body2" color="textSecondary" component="span">
        {unit}
      </Typography>
      {isWrong && (
        <Typography id={id} variant="caption" color="error" role="alert" sx={{ width: '100%' }}>
          Give a number from {min} to {max.toLocaleString('en')}.
        </Typography>
      )}
    </>
  )
}

/** A short text. */
export function TextCell({
  label,
  value,
  max,
  placeholder,
  set,
}: {
  label: string
  value: string
  max: number
  placeholder?: string
  set: (value: string) => void
}) {
  return (
    <InputBase
      value={value}
      fullWidth
      placeholder={placeholder}
      sx={{ ...FIELD, '& input': { py: 0.25 } }}
      onChange={(event) => {
        set(event.target.value.slice(0, max))
      }}
      inputProps={{ 'aria-label': label, maxLength: max }}
    />
  )
}
