import { TextField } from '@mui/material'
import { useState } from 'react'

interface Props {
  readonly label: string
  readonly value: number | null
  readonly change: (value: number | null) => void
  readonly help?: string | undefined
  readonly fault?: string | undefined
}

const NUMBER = /^-?\d{1,10}([.,]\d{1,6})?$/

/** A number, or none; what is no number stays as it is typed, and says so. */
export function NumberInput({ label, value, change, help, fault }: Props) {
  const [typed, setTyped] = useState<string | null>(null)
  const isWrong = typed !== null
  return (
    <TextField
      size="small"
      fullWidth
      label={label}
      value={typed ?? (value === null ? '' : String(value))}
      error={isWrong || fault !== undefined}
      helperText={isWrong ? 'Write a number, or nothing.' : (fault ?? help)}
      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
      onChange={({ target }) => {
        const text = target.value.trim()
        const isNumber = text === '' || NUMBER.test(text)
        setTyped(isNumber ? null : target.value)
        if (isNumber) change(text === '' ? null : Number(text.replace(',', '.')))
      }}
    />
  )
}
