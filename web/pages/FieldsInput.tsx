import { Stack } from '@mui/material'
import { isAsked, type Field, type Fields } from '@flimbo/core/fields'
import { FieldInput, type Editing } from './FieldInput.tsx'

/** Several fields, one below the other. */
export function FieldsInput({
  fields,
  values,
  before,
  editing,
  change,
}: {
  readonly fields: Fields
  readonly values: Readonly<Record<string, unknown>>
  /** What their paths begin with. */
  readonly before: string
  readonly editing: Editing
  readonly change: (name: string, value: unknown) => void
}) {
  return (
    <Stack sx={{ gap: 1.75 }}>
      {Object.entries(fields as Readonly<Record<string, Field>>).map(
        ([name, field]) =>
          isAsked(field, values) && (
            <FieldInput
              key={name}
              field={field}
              value={values[name]}
              path={`${before}${name}`}
              editing={editing}
              change={(value) => {
                change(name, value)
              }}
            />
          ),
      )}
    </Stack>
  )
}
