import { MenuItem, TextField } from '@mui/material'

/** A choice among a few. */
export function Pick({
  label,
  value,
  choices,
  change,
}: {
  label: string
  value: string
  choices: readonly (readonly [value: string, name: string])[]
  change: (value: string) => void
}) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={({ target }) => {
        change(target.value)
      }}
      sx={{ minWidth: 130 }}
    >
      {choices.map(([each, name]) => (
        <MenuItem key={each} value={each}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  )
}
