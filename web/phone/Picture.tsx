import { Autocomplete, Box, Stack, TextField, Typography } from '@mui/material'
import { printApi } from '@flimbo/core/print'
import { findApi, type Hit } from '@flimbo/core/workspace'
import { useDeferredValue, useEffect, useEffectEvent, useState, type DragEvent } from 'react'
import { hrefOf, useAnswer } from '../api/index.ts'
import { ChooseFile } from '../ui/index.ts'

/** A picture held before the camera. */
export interface Held {
  readonly blob: Blob
  readonly name: string
}

/** What the phone is shown: a piece's symbol as it downloads, or any picture file, dropped, chosen or pasted. */
export function Picture({
  held,
  hold,
  codeId,
  trouble,
}: {
  held: Held | null
  hold: (held: Held) => void
  codeId: number | null
  trouble: (text: string) => void
}) {
  const [typed, setTyped] = useState('')
  const asked = useDeferredValue(typed.trim())
  const found = useAnswer(findApi, { query: { q: asked } }, { enabled: asked !== '' })
  const [url, setUrl] = useState<string | null>(null)

  async function holdCode(id: number, name: string): Promise<void> {
    const response = await fetch(hrefOf(printApi.file, { params: { id }, query: { format: 'svg' } }))
    if (response.ok) hold({ blob: await response.blob(), name })
    else trouble('The symbol of this piece could not be fetched. Choose another.')
  }
  const holdFile = (file: File | null | undefined) => {
    if (file) hold({ blob: file, name: file.name })
  }

  const holdChosen = useEffectEvent((id: number) => holdCode(id, 'the chosen piece'))
  useEffect(() => {
    if (codeId !== null) void holdChosen(codeId)
  }, [codeId])
  useEffect(() => {
    if (!held) return
    const made = URL.createObjectURL(held.blob)
    setUrl(made)
    return () => {
      URL.revokeObjectURL(made)
    }
  }, [held])
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      holdFile([...(event.clipboardData?.files ?? [])][0])
    }
    window.addEventListener('paste', paste)
    return () => {
      window.removeEventListener('paste', paste)
    }
  })

  const drop = (event: DragEvent) => {
    event.preventDefault()
    holdFile(event.dataTransfer.files[0])
  }
  return (
    <Stack spacing={1.5}>
      <Autocomplete<Hit>
        size="small"
        options={(found.data?.hits ?? []).filter(({ kind }) => kind === 'code')}
        filterOptions={(all) => all}
        getOptionLabel={({ name, detail }) => `${name} · ${detail}`}
        getOptionKey={({ id }) => id}
        isOptionEqualToValue={(a, b) => a.id === b.id}
        onInputChange={(_event, value, reason) => {
          if (reason === 'input') setTyped(value)
        }}
        onChange={(_event, hit) => {
          if (hit) void holdCode(hit.id, hit.name)
        }}
        noOptionsText={asked === '' ? 'Type a part of its name or short link' : 'No piece found'}
        renderInput={(params) => <TextField {...params} label="One of your pieces" />}
      />
      <Box
        onDragOver={(event) => {
          event.preventDefault()
        }}
        onDrop={drop}
        sx={{
          border: '1px dashed',
          borderColor: 'text.secondary',
          borderRadius: 1,
          p: 2,
          display: 'grid',
          placeItems: 'center',
          gap: 1.5,
          minHeight: 260,
          textAlign: 'center',
        }}
      >
        {url ? (
          <Box
            component="img"
            src={url}
            alt={`Before the camera: ${held?.name ?? ''}`}
            sx={{ maxWidth: '100%', maxHeight: 220, minWidth: 160, objectFit: 'contain', bgcolor: '#fff' }}
          />
        ) : (
          <Typography color="textSecondary">Drop a picture of a symbol here, or paste one.</Typography>
        )}
        <ChooseFile of="Picture file" accept="image/*" take={holdFile} variant="outlined">
          Choose a picture file
        </ChooseFile>
      </Box>
    </Stack>
  )
}
