import { Stack, TextField } from '@mui/material'
import { CODE_FIELDS } from '@flimbo/core/conditions'
import type { Editing } from './editing.ts'
import { Several } from './fields.tsx'
import { Pick } from './Pick.tsx'

const FIELD_NAMES = {
  medium: 'Medium',
  source: 'Source',
  content: 'Content',
  label: 'Name of the piece',
} as const

/** A field of the scanned piece. */
export function CodeEditor({ leaf, change }: Editing<'code'>) {
  return (
    <Stack sx={{ gap: 1 }}>
      <Pick
        label="Field"
        value={leaf.field}
        choices={CODE_FIELDS.map((field) => [field, FIELD_NAMES[field]])}
        change={(field) => {
          change({ ...leaf, field: field as typeof leaf.field })
        }}
      />
      <Several
        label="Is one of"
        values={leaf.in}
        options={[]}
        free
        change={(values) => {
          change({ ...leaf, in: values })
        }}
      />
    </Stack>
  )
}

/** A value that the short link was asked for with. */
export function QueryEditor({ leaf, change }: Editing<'query'>) {
  return (
    <Stack sx={{ gap: 1 }}>
      <TextField
        size="small"
        label="Name of the value"
        value={leaf.name}
        onChange={({ target }) => {
          change({ ...leaf, name: target.value })
        }}
      />
      <Several
        label="Is one of (empty for any)"
        values={leaf.in}
        options={[]}
        free
        change={(values) => {
          change({ ...leaf, in: values })
        }}
      />
    </Stack>
  )
}
