import { Box, Stack, TextField } from '@mui/material'
import { useState } from 'react'

const HEX = /^#[0-9a-fA-F]{6}$/

/** A colour: chosen by eye, or written as six hexadecimal digits. */
export function ColourInput({
  label,
  value,
  change,
  fault,
}: {
  readonly label: string
  readonly value: string
  readonly change: (value: string) => void
  readonly fault?: string | undefined
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const isWrong = typed !== null && !HEX.test(typed)
  return (
    <Stack direction="row" sx={{ gap: 1, alignItems: 'flex-start' }}>
      <Box
        component="input"
        type="color"
        aria-label={`${label}: choose`}
        value={value.toLowerCase()}
        onChange={({ target }: React.ChangeEvent<HTMLInputElement>) => {
          setTyped(null)
          change(target.value.toUpperCase())
        }}
        sx={{
          width: 40,
          height: 40,
          p: 0.25,
          border: 1,
          borderColor: 'divider',
          borderRadius: 1,
          bgcolor: 'background.paper',
        }}
      />
      <TextField
        size="small"
        label={label}
        value={typed ?? value}
        error={isWrong || fault !== undefined}
        helperText={isWrong ? 'Write six hexadecimal digits: #0C5A66.' : fault}
        slotProps={{ htmlInput: { maxLength: 7, spellCheck: false } }}
        sx={{ flex: 1 }}
        onChange={({ target }) => {
          const text = target.value.startsWith('#') ? target.value : `#${target.value}`
          setTyped(text)
          if (HEX.test(text)) change(text.toUpperCase())
        }}
        onBlur={() => {
          if (!isWrong) setTyped(null)
        }}
      />
    </Stack>
  )
}
