import CloseIcon from '@mui/icons-material/Close'
import BookmarkIcon from '@mui/icons-material/BookmarkBorderOutlined'
import { Button, IconButton, Link, Stack, TextField, Typography } from '@mui/material'
import { resultsApi, writeView, type SavedQuestion } from '@flimbo/core/results'
import { useState, type SubmitEvent } from 'react'
import { Link as RouterLink } from 'react-router'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Fault, PanelButton } from '../ui/index.ts'
import { savedValueOf, type AskedResults } from './useResults.ts'

/** Where a saved question is asked anew. */
export function addressOf({ value: { clientId, campaignId, routeId, codeId, view } }: SavedQuestion): string {
  const things = { client: clientId, route: routeId, code: codeId }
  const named = new URLSearchParams(
    Object.entries(things).flatMap(([name, id]) => (id === undefined ? [] : [[name, String(id)]])),
  )
  const path = campaignId === undefined ? '/results' : `/campaigns/${String(campaignId)}/results`
  const search = writeView(named, view).toString()
  return search === '' ? path : `${path}?${search}`
}

/** Questions that were saved, and the way to save the one that is asked. */
export function SavedQuestions({ asked }: { asked: AskedResults }) {
  const rows = useAnswer(resultsApi.saved, {}).data?.rows ?? []
  const forget = useChange(resultsApi.forget)
  return (
    <PanelButton
      label={rows.length > 0 ? `Saved questions (${String(rows.length)})` : 'Save this question'}
      name="Saved questions"
      startIcon={<BookmarkIcon />}
      align="right"
      width={380}
    >
      {(close) => (
        <>
          {rows.length > 0 && (
            <Stack
              component="ul"
              aria-label="Saved questions"
              sx={{ listStyle: 'none', m: 0, p: 0, mb: 2, maxHeight: 300, overflowY: 'auto' }}
            >
              {rows.map((saved) => (
                <Stack
                  component="li"
                  direction="row"
                  key={saved.id}
                  sx={{ alignItems: 'center', minHeight: 32 }}
                >
                  <Link
                    component={RouterLink}
                    to={addressOf(saved)}
                    onClick={close}
                    sx={{ flex: 1, minWidth: 0 }}
                    noWrap
                  >
                    {saved.name}
                  </Link>
                  <Typography variant="caption" color="textSecondary" noWrap sx={{ maxWidth: 110 }}>
                    {saved.by}
                  </Typography>
                  <IconButton
                    size="small"
                    aria-label={`Delete: ${saved.name}`}
                    disabled={forget.isPending}
                    onClick={() => {
                      forget.mutate({ params: { id: saved.id } })
                    }}
                  >
                    <CloseIcon fontSize="inherit" />
                  </IconButton>
                </Stack>
              ))}
            </Stack>
          )}
          <Fault sentence={forget.error && sentenceOf(forget.error, 'The question was not deleted.')} />
          <SaveForm asked={asked} />
        </>
      )}
    </PanelButton>
  )
}

function SaveForm({ asked }: { asked: AskedResults }) {
  const save = useChange(resultsApi.save)
  const [name, setName] = useState('')
  function submit(event: SubmitEvent) {
    event.preventDefault()
    save.mutate(
      { body: { name, value: savedValueOf(asked) } },
      {
        onSuccess() {
          setName('')
        },
      },
    )
  }
  return (
    <Stack component="form" noValidate direction="row" onSubmit={submit} sx={{ gap: 1, flexWrap: 'wrap' }}>
      <TextField
        size="small"
        label="Name for this question"
        value={name}
        autoFocus
        sx={{ flex: 1 }}
        onChange={({ target }) => {
          setName(target.value)
        }}
      />
      <Button type="submit" variant="contained" disabled={save.isPending}>
        Save
      </Button>
      <Fault sentence={save.error && sentenceOf(save.error, 'The question was not saved.')} />
    </Stack>
  )
}
