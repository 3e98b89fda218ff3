import { Button, Stack, TextField, Typography } from '@mui/material'
import { pagesApi, type Page } from '@flimbo/core/pages'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { Fault } from '../ui/index.ts'

/** Gives a page another name; visitors do not see it. */
export function RenamePage({ page, done }: { page: Page; done: () => void }) {
  const [name, setName] = useState(page.name)
  const rename = useChange(pagesApi.rename)
  return (
    <Stack
      component="form"
      sx={{ gap: 2 }}
      onSubmit={(event) => {
        event.preventDefault()
        rename.mutate({ params: { id: page.id }, body: { version: page.version, name } }, { onSuccess: done })
      }}
    >
      <Typography variant="h2">Rename</Typography>
      <TextField
        size="small"
        label="Name"
        autoFocus
        value={name}
        helperText="What it is called here; visitors do not see it."
        onChange={({ target }) => {
          setName(target.value)
        }}
      />
      <Fault sentence={rename.error ? sentenceOf(rename.error, 'The name could not be saved.') : null} />
      <Stack direction="row" sx={{ gap: 1 }}>
        <Button type="submit" variant="contained" disabled={rename.isPending || name.trim() === ''}>
          Save
        </Button>
        <Button color="inherit" onClick={done}>
          Cancel
        </Button>
      </Stack>
    </Stack>
  )
}
