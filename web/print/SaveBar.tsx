import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { codesApi, type Code } from '@flimbo/core/codes'
import { quantity } from '@flimbo/core/formats'
import { houseStylesApi } from '@flimbo/core/houseStyles'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { call, sentenceOf } from '../api/index.ts'
import { useStyles } from '../symbol/index.ts'
import { StyleUses } from './StyleUses.tsx'
import type { DraftOf } from './useDraft.ts'

/** Saves the draft: the piece, and its house style for all the pieces that use it, or as a new one. */
export function SaveBar({ code, draft: given }: { code: Code; draft: DraftOf }) {
  const { draft, changes, isChanged, discard } = given
  const { byId } = useStyles()
  const queries = useQueryClient()
  const [name, setName] = useState<string | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const [isSaving, setSaving] = useState(false)
  const style = draft.styleId === null ? undefined : byId.get(draft.styleId)
  if (!isChanged) return null

  async function save(newName: string | null): Promise<void> {
    setSaving(true)
    setFault(null)
    try {
      const { styleId, sizeMm, viewingM, level, look, placement } = draft
      let printed = styleId
      if (newName !== null)
        printed = (await call(houseStylesApi.create, { body: { name: newName, look } })).id
      else if (changes.look && style)
        await call(houseStylesApi.change, {
          params: { id: style.id },
          body: { version: style.version, look },
        })
      await call(codesApi.change, {
        params: { id: code.id },
        body: { version: code.version, styleId: printed, sizeMm, viewingM, level, placement },
      })
      await queries.invalidateQueries()
      setName(null)
      discard()
    } catch (error) {
      await queries.invalidateQueries()
      setFault(sentenceOf(error, 'Nothing was saved. Try again; what you changed is still here.'))
    } finally {
      setSaving(false)
    }
  }

  const others = (style?.pieces ?? 0) - (code.styleId === draft.styleId ? 1 : 0)
  const mustBeNew = changes.look && !style
  return (
    <Stack
      role="region"
      aria-label="Unsaved changes"
      sx={{ borderTop: 1, borderColor: 'primary.main', px: 2, py: 1, gap: 0.75 }}
    >
      {fault !== null && (
        <Typography variant="body2" color="error" role="alert">
          {fault}
        </Typography>
      )}
      <Typography variant="body2">{sentenceFor(changes.look, style?.name, others)}</Typography>
      {changes.look && style && others > 0 && <StyleUses styleId={style.id} except={code.id} />}
      {code.print.release && (
        <Typography variant="body2" color="warning">
          It was released: what is printed stays as it was, and is shown as changed since.
        </Typography>
      )}
      {name !== null && (
        <Box
          component="form"
          sx={{ display: 'flex', gap: 1 }}
          onSubmit={(event) => {
            event.preventDefault()
            void save(name)
          }}
        >
          <TextField
            size="small"
            label="Name of the house style"
            value={name}
            autoFocus
            onChange={(event) => {
              setName(event.target.value)
            }}
            onKeyDown={(event) => {
              if (event.key === 'Escape') {
                event.stopPropagation()
                setName(null)
              }
            }}
            sx={{ flex: 1 }}
          />
          <Button type="submit" variant="contained" disabled={isSaving || name.trim() === ''}>
            Save
          </Button>
        </Box>
      )}
      {name === null && (
        <Stack direction="row" spacing={1}>
          {!mustBeNew && (
            <Button
              variant="contained"
              disabled={isSaving}
              onClick={() => {
                void save(null)
              }}
            >
              Save
            </Button>
          )}
          {changes.look && (
            <Button
              variant={mustBeNew ? 'contained' : 'outlined'}
              disabled={isSaving}
              onClick={() => {
                setName('')
              }}
            >
              Save as a new house style
            </Button>
          )}
          <Button color="inherit" disabled={isSaving} onClick={discard}>
            Discard
          </Button>
        </Stack>
      )}
    </Stack>
  )
}

function sentenceFor(isLook: boolean, style: string | undefined, others: number): string {
  if (!isLook) return 'The piece has changes that are not saved.'
  if (style === undefined) return 'The plain look stays as it is. Save this one under a name of its own.'
  return others > 0
    ? `Saving changes “${style}”, and with it ${quantity(others, 'other piece')}.`
    : `Saving changes “${style}”.`
}
