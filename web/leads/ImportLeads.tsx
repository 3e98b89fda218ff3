import {
  Alert,
  Dialog,
  DialogContent,
  DialogTitle,
  MenuItem,
  Stack,
  TextField,
  Typography,
} from '@mui/material'
import { number, quantity } from '@flimbo/core/formats'
import { LEAD_LINES_MAX, leadsApi, readLeads, type LeadTable } from '@flimbo/core/leads'
import { pagesApi, type PartOf } from '@flimbo/core/pages'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { ChooseFile, DialogButtons, Fault, TABLE_FILES, useTableFile } from '../ui/index.ts'
import { PiecePick } from './PiecePick.tsx'

const BYTES_MAX = 5_000_000
const TOO_LARGE = 'The file is larger than 5 MB. Take it in by several files.'
const FAULTS_SHOWN = 10

/** A file of which it is only known that it is a table, before there is a form to read it by. */
function asTable(text: string): string {
  readLeads(text, [], { language: 'en', languages: ['en'] })
  return text
}

/** Takes in answers that were given elsewhere, such as on paper: a line each, a column a question. */
export function ImportLeads({ campaignId, close }: { campaignId: number; close: () => void }) {
  const pages = useAnswer(pagesApi.list, { query: { campaignId } }).data?.rows ?? []
  const [pageId, setPageId] = useState<number | null>(null)
  const [codeId, setCodeId] = useState<number | null>(null)
  const { table: text, fault: unread, take: choose } = useTableFile(asTable, BYTES_MAX, TOO_LARGE)
  const page = useAnswer(pagesApi.get, { params: { id: pageId ?? 0 } }, { enabled: pageId !== null }).data
  const take = useChange(leadsApi.importAnswers)
  const content = page?.live
  const form = content?.parts.find((each): each is PartOf<'form'> => each.kind === 'form')
  const read = (): LeadTable | null => {
    if (text === null || !form || !content) return null
    const { languages } = content
    return readLeads(text, form.questions, { language: languages[0] ?? 'en', languages })
  }
  const table = read()
  const isReady = table !== null && table.lines.length > 0 && table.taken.length > 0 && codeId !== null

  return (
    <Dialog open onClose={close} fullWidth maxWidth="sm">
      <DialogTitle>Take in answers from a file</DialogTitle>
      <DialogContent>
        <Stack sx={{ gap: 2, pt: 1 }}>
          <Typography variant="body2">
            A CSV file whose first line has the questions, or their short names; “time” says when (ISO 8601).
            Nobody is mailed. A line that was taken in before is not taken in twice.
          </Typography>
          <TextField
            select
            size="small"
            label="Page with the form"
            value={pageId ?? ''}
            error={page !== undefined && !form}
            helperText={page !== undefined && !form ? 'No form is live on this page.' : undefined}
            onChange={({ target }) => {
              setPageId(Number(target.value))
            }}
          >
            {pages.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <PiecePick
            label="Piece they are counted for"
            campaignId={campaignId}
            chosen={codeId}
            change={setCodeId}
          />
          <ChooseFile
            of="File of answers"
            accept={TABLE_FILES}
            take={(file) => {
              if (file) take.reset()
              return choose(file)
            }}
            variant="outlined"
            sx={{ alignSelf: 'flex-start' }}
          >
            {text === null ? 'Choose file' : 'Choose another file'}
          </ChooseFile>
          <Fault sentence={unread} />
          {table && <Found table={table} />}
          <Fault sentence={take.error ? sentenceOf(take.error, 'Nothing was taken in. Try again.') : null} />
          {take.data && (
            <Alert severity={take.data.faults.length === 0 ? 'success' : 'warning'} variant="outlined">
              {quantity(take.data.stored, 'lead')} taken in
              {take.data.known > 0 && `, ${number(take.data.known)} were there already`}
              {take.data.faults.length > 0 && '. These lines were not:'}
              {take.data.faults.slice(0, FAULTS_SHOWN).map(({ line, question, sentence }, i) => (
                <Typography variant="body2" key={i}>
                  Line {line}
                  {question === '' ? '' : `, ${question}`}: {sentence}
                </Typography>
              ))}
              {take.data.faults.length > FAULTS_SHOWN && (
                <Typography variant="body2">
                  and {number(take.data.faults.length - FAULTS_SHOWN)} more
                </Typography>
              )}
            </Alert>
          )}
        </Stack>
      </DialogContent>
      <DialogButtons
        label="Take in"
        isDisabled={!isReady || take.isPending}
        act={() => {
          if (!table || !form || pageId === null || codeId === null) return
          const lines = table.lines.slice(0, LEAD_LINES_MAX).map(({ line, at, sent }) => ({
            line,
            at,
            sent: sent.map(([name, values]): [string, string[]] => [name, [...values]]),
          }))
          take.mutate({ body: { campaignId, pageId, part: form.id, codeId, lines } })
        }}
        close={close}
      />
    </Dialog>
  )
}

function Found({ table: { taken, left, lines } }: { table: LeadTable }) {
  return (
    <Typography variant="body2" role="status">
      {quantity(lines.length, 'line')}
      {lines.length > LEAD_LINES_MAX && `, of which the first ${number(LEAD_LINES_MAX)} are taken in`}.{' '}
      {taken.length === 0
        ? 'None of its headings is a question of this form.'
        : `Taken: ${taken.join(', ')}.`}
      {left.length > 0 && ` Left out: ${left.join(', ')}.`}
    </Typography>
  )
}
