import { Autocomplete, TextField } from '@mui/material'
import { Controller, type Control, type FieldValues, type Path } from 'react-hook-form'
import { ZONES } from '../session/index.ts'

/** A time zone, found by typing a part of its name. */
export function FormZone<Values extends FieldValues>({
  control,
  name,
  hint,
}: {
  control: Control<Values>
  name: Path<Values>
  hint?: string
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { ref, value, onChange, onBlur }, fieldState: { error } }) => (
        <Autocomplete
          size="small"
          options={ZONES.includes(value) ? ZONES : [value, ...ZONES]}
          value={value}
          disableClearable
          onChange={(_event, zone) => {
            onChange(zone)
          }}
          onBlur={onBlur}
          renderInput={(params) => (
            <TextField
              {...params}
              inputRef={ref}
              label="Time zone"
              error={error !== undefined}
              helperText={error?.message ?? hint}
            />
          )}
        />
      )}
    />
  )
}
