import { Box, Button, TextField, Typography } from '@mui/material'
import { moment } from '@flimbo/core/formats'
import { leadsApi, type Lead } from '@flimbo/core/leads'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { Fault } from '../ui/index.ts'

/** What the office wrote about a lead. */
export function LeadNotes({ lead: { id, notes }, zone }: { lead: Lead; zone: string }) {
  const [text, setText] = useState('')
  const write = useChange(leadsApi.note)
  return (
    <Box>
      <Typography variant="h3">Notes</Typography>
      {notes.map((note) => (
        <Box key={note.id} sx={{ mb: 1 }}>
          <Typography variant="body2" sx={{ whiteSpace: 'pre-line' }}>
            {note.text}
          </Typography>
          <Typography variant="caption" color="textSecondary">
            {note.by}, {moment(note.at, zone)}
          </Typography>
        </Box>
      ))}
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault()
          write.mutate(
            { params: { id }, body: { text } },
            {
              onSuccess: () => {
                setText('')
              },
            },
          )
        }}
      >
        <TextField
          size="small"
          fullWidth
          multiline
          label="New note"
          value={text}
          onChange={({ target }) => {
            setText(target.value)
          }}
        />
        <Fault
          sentence={write.error ? sentenceOf(write.error, 'The note was not written. Try again.') : null}
        />
        <Button type="submit" size="small" sx={{ mt: 0.5 }} disabled={text.trim() === '' || write.isPending}>
          Write note
        </Button>
      </Box>
    </Box>
  )
}
