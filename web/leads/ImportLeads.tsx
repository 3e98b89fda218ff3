import {
  Alert,
  Autocomplete,
  Button,
  Dialog,
  DialogContent,
  DialogTitle,
  MenuItem,
  Stack,
  TextField,
  Typography,
} from '@mui/material'
import { codesApi } from '@flimbo/core/codes'
import { number, quantity } from '@flimbo/core/formats'
import { LEAD_LINES_MAX, leadsApi, readLeads, type LeadTable } from '@flimbo/core/leads'
import { pagesApi, type PartOf } from '@flimbo/core/pages'
import { decodeBytes, detectEncoding, UnreadableTable } from '@flimbo/core/plan'
import { useRef, useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { DialogButtons, Fault } from '../ui/index.ts'

const BYTES_MAX = 5_000_000
const PIECES = 500
const FAULTS_SHOWN = 10

/** Takes in answers that were given elsewhere, such as on paper: a line each, a column a question. */
export function ImportLeads({ campaignId, close }: { campaignId: number; close: () => void }) {
  const pages = useAnswer(pagesApi.list, { query: { campaignId } }).data?.rows ?? []
  const codes =
    useAnswer(codesApi.list, { query: { campaignId, pageSize: PIECES, sort: 'name' } }).data?.rows ?? []
  const [pageId, setPageId] = useState<number | null>(null)
  const [codeId, setCodeId] = useState<number | null>(null)
  const [text, setText] = useState<string | null>(null)
  const [unread, setUnread] = useState<string | null>(null)
  const field = useRef<HTMLInputElement>(null)
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

  async function choose(file: File | undefined): Promise<void> {
    if (!file) return
    take.reset()
    setText(null)
    if (file.size > BYTES_MAX) {
      setUnread('The file is larger than 5 MB. Take it in by several files.')
      return
    }
    const bytes = new Uint8Array(await file.arrayBuffer())
    const decoded = decodeBytes(bytes, detectEncoding(bytes))
    try {
      readLeads(decoded, [], { language: 'en', languages: ['en'] })
      setText(decoded)
      setUnread(null)
    } catch (error) {
      setUnread(error instanceof UnreadableTable ? error.message : 'The file could not be read as a table.')
    }
  }
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
          <Autocomplete
            size="small"
            options={codes}
            getOptionLabel={({ name }) => name}
            getOptionKey={({ id }) => id}
            onChange={(_event, chosen) => {
              setCodeId(chosen?.id ?? null)
            }}
            renderInput={(params) => <TextField {...params} label="Piece they are counted for" />}
          />
          <Button
            variant="outlined"
            sx={{ alignSelf: 'flex-start' }}
            onClick={() => {
              field.current?.click()
            }}
          >
            {text === null ? 'Choose file' : 'Choose another file'}
          </Button>
          <input
            ref={field}
            type="file"
            hidden
            accept=".csv,.txt,.tsv,text/csv"
            aria-label="File of answers"
            onChange={({ target }) => {
              void choose(target.files?.[0])
              target.value = ''
            }}
          />
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
