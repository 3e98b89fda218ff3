import { Button, MenuItem, Paper, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { quantity } from '@flimbo/core/formats'
import type { GridColumn } from './columns.tsx'

export interface SelectionActions {
  readonly set: (column: GridColumn, text: string) => void
  readonly duplicate: () => void
  readonly archive: (on: boolean) => void
  readonly remove: () => void
  readonly move: () => void
  readonly clear: () => void
}

/** What can be done to all chosen pieces at once. */
export function SelectionBar({
  count,
  columns,
  archived,
  actions,
}: {
  count: number
  columns: readonly GridColumn[]
  archived: boolean
  actions: SelectionActions
}) {
  const choices = columns.filter(
    ({ plan, id }) => plan !== null && !['name', 'key', 'slug', 'destination'].includes(id),
  )
  const [field, setField] = useState('medium')
  const [text, setText] = useState('')
  const column = choices.find(({ id }) => id === field) ?? choices[0]
  return (
    <Paper
      variant="outlined"
      role="region"
      aria-label="Selected pieces"
      sx={{ px: 1.5, py: 0.75, borderColor: 'primary.main' }}
    >
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography sx={{ fontWeight: 650, mr: 1 }}>{quantity(count, 'piece')} chosen</Typography>
        <Stack
          direction="row"
          component="form"
          sx={{ gap: 1 }}
          onSubmit={(event) => {
            event.preventDefault()
            if (column) actions.set(column, text)
          }}
        >
          <TextField
            select
            size="small"
            label="Set"
            value={column?.id ?? ''}
            onChange={(event) => {
              setField(event.target.value)
            }}
            sx={{ minWidth: 130 }}
          >
            {choices.map(({ id, title }) => (
              <MenuItem key={id} value={id}>
                {title}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            size="small"
            label="to"
            value={text}
            onChange={(event) => {
              setText(event.target.value)
            }}
            sx={{ width: 160 }}
          />
          <Button type="submit" variant="outlined">
            Set for all
          </Button>
        </Stack>
        <Button color="inherit" onClick={actions.duplicate}>
          Duplicate
        </Button>
        <Button color="inherit" onClick={actions.move}>
          Move…
        </Button>
        {archived ? (
          <Button
            color="inherit"
            onClick={() => {
              actions.archive(false)
            }}
          >
            Restore
          </Button>
        ) : (
          <Button
            color="inherit"
            onClick={() => {
              actions.archive(true)
            }}
          >
            Archive
          </Button>
        )}
        <Button color="inherit" onClick={actions.remove}>
          Delete
        </Button>
        <Button color="inherit" onClick={actions.clear} sx={{ ml: 'auto' }}>
          Clear selection
        </Button>
      </Stack>
    </Paper>
  )
}
