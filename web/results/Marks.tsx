import CloseIcon from '@mui/icons-material/Close'
import { Box, Button, IconButton, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { markInWords } from '@flimbo/core/charts'
import { resultsApi, type ResultsSummary } from '@flimbo/core/results'
import { useState, type SubmitEvent } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { DayField, Fault, PanelButton } from '../ui/index.ts'
import type { AskedResults } from './useResults.ts'

/** What may explain the figures, numbered as it is marked on the chart of time; notes are added and deleted here. */
export function Marks({ summary: { marks, zone }, asked }: { summary: ResultsSummary; asked: AskedResults }) {
  const remove = useChange(resultsApi.removeNote)
  return (
    <Box>
      {marks.length > 0 && (
        <Box
          component="ol"
          aria-label="What may explain it"
          tabIndex={0}
          sx={{ listStyle: 'none', m: 0, px: 2, py: 0, maxHeight: 130, overflowY: 'auto' }}
        >
          {marks.map((mark, i) => (
            <Stack
              component="li"
              direction="row"
              key={`${mark.kind}${String(mark.id)}`}
              sx={{ alignItems: 'center' }}
            >
              <Typography variant="body2" noWrap>
                <Box
                  component="span"
                  sx={{ color: 'warning.main', fontWeight: 650, display: 'inline-block', minWidth: 22 }}
                >
                  {i + 1}
                </Box>
                {markInWords(mark, zone)}
                {mark.kind === 'destination' && (
                  <Typography component="span" variant="mono">
                    {mark.detail}
                  </Typography>
                )}
              </Typography>
              {mark.kind === 'note' && (
                <IconButton
                  size="small"
                  aria-label={`Delete the note: ${mark.name}`}
                  disabled={remove.isPending}
                  onClick={() => {
                    remove.mutate({ params: { id: mark.id } })
                  }}
                >
                  <CloseIcon fontSize="inherit" />
                </IconButton>
              )}
            </Stack>
          ))}
        </Box>
      )}
      <PanelButton label="Add a note on a day" name="Add a note on a day" color="inherit" width={340}>
        {(close) => <NoteForm asked={asked} done={close} />}
      </PanelButton>
      <Fault sentence={remove.error && sentenceOf(remove.error, 'The note was not deleted.')} />
    </Box>
  )
}

function NoteForm({ asked: { campaign, to }, done }: { asked: AskedResults; done: () => void }) {
  const note = useChange(resultsApi.note)
  const [onDay, setDay] = useState(to)
  const [text, setText] = useState('')
  const [isOfAll, setOfAll] = useState(campaign === null)
  function submit(event: SubmitEvent) {
    event.preventDefault()
    const body = { campaignId: isOfAll ? null : (campaign?.id ?? null), day: onDay, text }
    note.mutate({ body }, { onSuccess: done })
  }
  return (
    <Stack component="form" noValidate onSubmit={submit} sx={{ gap: 2 }}>
      <DayField label="Day" value={onDay} change={setDay} />
      <TextField
        size="small"
        label="What happened"
        placeholder="Storm, no boats"
        value={text}
        autoFocus
        onChange={({ target }) => {
          setText(target.value)
        }}
      />
      {campaign && (
        <TextField
          select
          size="small"
          label="Shown with"
          value={isOfAll ? 'all' : 'campaign'}
          onChange={({ target }) => {
            setOfAll(target.value === 'all')
          }}
        >
          <MenuItem value="campaign">{campaign.name}</MenuItem>
          <MenuItem value="all">all campaigns</MenuItem>
        </TextField>
      )}
      <Fault sentence={note.error && sentenceOf(note.error, 'The note was not saved.')} />
      <Button type="submit" variant="contained" disabled={note.isPending}>
        Save
      </Button>
    </Stack>
  )
}
