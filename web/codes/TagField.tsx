import { Autocomplete, TextField, Typography } from '@mui/material'
import { taggingApi, type TagField as Field } from '@flimbo/core/tagging'
import { Controller, type Control, type FieldValues, type Path } from 'react-hook-form'
import { useAnswer } from '../api/index.ts'
import { quantity } from '@flimbo/core/formats'

/** A tag's value: from the list of those in use, the most carried first, or a new one. */
export function TagField<Values extends FieldValues>({
  control,
  name,
  label,
  field: of,
  hint,
}: {
  control: Control<Values>
  name: Path<Values>
  label: string
  field: Field
  hint?: string
}) {
  const values = useAnswer(taggingApi.values, {})
  const rules = useAnswer(taggingApi.rules, {})
  const counts = new Map((values.data?.[of] ?? []).map(({ value, pieces }) => [value, pieces]))
  const listed = of === 'medium' ? (rules.data?.value.media ?? []) : []
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { ref, value, onChange, onBlur }, fieldState: { error } }) => (
        <Autocomplete
          freeSolo
          size="small"
          fullWidth
          options={[...new Set([...listed, ...counts.keys()])]}
          inputValue={value ?? ''}
          value={null}
          clearOnBlur={false}
          onInputChange={(_event, typed, reason) => {
            if (reason !== 'reset') onChange(typed)
          }}
          onChange={(_event, chosen) => {
            if (chosen !== null) onChange(chosen)
          }}
          onBlur={onBlur}
          renderOption={({ key, ...props }, option) => (
            <li key={key} {...props}>
              {option}
              <Typography component="span" variant="body2" color="textSecondary" sx={{ ml: 'auto', pl: 2 }}>
                {counts.has(option) ? quantity(counts.get(option) ?? 0, 'piece') : 'on the house’s list'}
              </Typography>
            </li>
          )}
          renderInput={(params) => (
            <TextField
              {...params}
              label={label}
              inputRef={ref}
              error={error !== undefined}
              helperText={error?.message ?? hint}
            />
          )}
        />
      )}
    />
  )
}
