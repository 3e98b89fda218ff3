import AddIcon from '@mui/icons-material/Add'
import ArrowDownIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpIcon from '@mui/icons-material/ArrowUpward'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { Box, Button, IconButton, Stack, Typography } from '@mui/material'
import { emptyOf, type Field } from '@flimbo/core/fields'
import { swap } from '../ui/index.ts'
import { keyedRow } from './editQuestions.ts'
import { FieldsInput } from './FieldsInput.tsx'
import type { Editing } from './FieldInput.tsx'

type Row = Readonly<Record<string, unknown>>
interface Props {
  readonly field: Extract<Field, { type: 'list' }>
  readonly rows: readonly Row[]
  readonly path: string
  readonly editing: Editing
  readonly change: (rows: readonly Row[]) => void
}

/** A list of the same few fields: added, moved and removed line by line. */
export function ListField({ field, rows, path, editing, change }: Props) {
  const { label, one, max, of } = field
  const fault = editing.faultAt(path)
  return (
    <Box role="group" aria-label={label}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        {label}
      </Typography>
      <Stack sx={{ gap: 1.25 }}>
        {rows.map((row, i) => {
          const nth = `${one} ${String(i + 1)}`
          return (
            <Box
              key={i}
              role="group"
              aria-label={nth}
              sx={{ borderLeft: 2, borderColor: 'divider', pl: 1.25 }}
            >
              <Stack direction="row" sx={{ alignItems: 'center', mb: 0.5 }}>
                <Typography variant="body2" color="textSecondary" sx={{ flex: 1 }}>
                  {nth.charAt(0).toUpperCase() + nth.slice(1)}
                </Typography>
                <IconButton
                  size="small"
                  aria-label={`Move ${nth} up`}
                  disabled={i === 0}
                  onClick={() => {
                    change(swap(rows, i, i - 1))
                  }}
                >
                  <ArrowUpIcon fontSize="small" />
                </IconButton>
                <IconButton
                  size="small"
                  aria-label={`Move ${nth} down`}
                  disabled={i === rows.length - 1}
                  onClick={() => {
                    change(swap(rows, i, i + 1))
                  }}
                >
                  <ArrowDownIcon fontSize="small" />
                </IconButton>
                <IconButton
                  size="small"
                  aria-label={`Remove ${nth}`}
                  onClick={() => {
                    change(rows.filter((_each, at) => at !== i))
                  }}
                >
                  <DeleteIcon fontSize="small" />
                </IconButton>
              </Stack>
              <FieldsInput
                fields={of}
                values={row}
                before={`${path}.${String(i)}.`}
                editing={editing}
                change={(name, value) => {
                  change(rows.map((each, at) => (at === i ? { ...each, [name]: value } : each)))
                }}
              />
            </Box>
          )
        })}
      </Stack>
      {fault !== undefined && (
        <Typography variant="caption" color="error" component="p">
          {fault}
        </Typography>
      )}
      <Button
        size="small"
        startIcon={<AddIcon />}
        sx={{ mt: 0.75 }}
        disabled={rows.length >= max}
        onClick={() => {
          change([...rows, keyedRow(of, emptyOf(of), rows)])
        }}
      >
        Add {one}
      </Button>
    </Box>
  )
}
