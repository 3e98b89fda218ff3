import { DayField } from './DayField.tsx'
import { MenuItem, TextField, type TextFieldProps } from '@mui/material'
import { Controller, type Control, type FieldValues, type Path } from 'react-hook-form'

export type FormTextProps<Values extends FieldValues> = Omit<
  TextFieldProps,
  'name' | 'error' | 'defaultValue'
> & {
  control: Control<Values>
  name: Path<Values>
  /** Said under the field while nothing is wrong with it. */
  hint?: string
}

/** A text field of a form; what is wrong with it stands under it. */
export function FormText<Values extends FieldValues>({
  control,
  name,
  hint,
  onBlur,
  ...rest
}: FormTextProps<Values>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { ref, ...field }, fieldState: { error } }) => (
        <TextField
          size="small"
          fullWidth
          {...rest}
          {...field}
          inputRef={ref}
          error={error !== undefined}
          helperText={error?.message ?? hint}
          onBlur={(event) => {
            field.onBlur()
            onBlur?.(event)
          }}
        />
      )}
    />
  )
}

/** A calendar day, as a form field; empty for none. */
export function FormDay<Values extends FieldValues>({
  control,
  name,
  label,
  hint,
}: {
  control: Control<Values>
  name: Path<Values>
  label: string
  hint?: string
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { ref, value, onChange, onBlur }, fieldState: { error } }) => (
        <DayField
          label={label}
          name={name}
          value={String(value)}
          change={onChange}
          fault={error?.message}
          hint={hint}
          inputRef={ref}
          onBlur={onBlur}
        />
      )}
    />
  )
}

/** A choice among a few, as a form field. */
export function FormChoice<Values extends FieldValues>({
  choices,
  ...rest
}: FormTextProps<Values> & { choices: readonly { value: string | number; label: string }[] }) {
  return (
    <FormText {...rest} select>
      {choices.map(({ value, label }) => (
        <MenuItem key={value} value={value}>
          {label}
        </MenuItem>
      ))}
    </FormText>
  )
}
