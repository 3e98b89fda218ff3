import { TextField } from '@mui/material'
import type { ReactNode } from 'react'

/** One of several words, in a field as wide as they are. */
export function Choice({
  label,
  value,
  width,
  disabled = false,
  change,
  children,
}: {
  label: string
  value: string
  width: number
  disabled?: boolean
  change: (value: string) => void
  children: ReactNode
}) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      disabled={disabled}
      sx={{ width }}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
      onChange={({ target }) => {
        change(target.value)
      }}
    >
      {children}
    </TextField>
  )
}
