import { Button, Stack, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { FILE_NAME_PATTERN_USUAL, fileNameFault } from '@flimbo/core/plan'
import { printApi } from '@flimbo/core/print'
import type { Finish } from '@flimbo/core/symbol'
import { useState } from 'react'
import { Link } from 'react-router'
import { hrefOf } from '../api/index.ts'
import { useFile } from '../jobs/index.ts'
import { FinishRows } from './FinishRows.tsx'
import { Part, Row, TextCell } from './rows.tsx'
import { piecesOf, type Subject } from './subject.ts'
import type { Contacts } from './useContacts.ts'

interface Props {
  readonly subject: Subject
  readonly contacts: Contacts
  readonly isChanged: boolean
  readonly finish: Finish
  readonly setFinish: (finish: Finish) => void
}

const fileHref = ({ kind, id }: Subject, finish: Finish) =>
  kind === 'static'
    ? hrefOf(printApi.staticFile, { params: { id }, query: finish })
    : hrefOf(printApi.file, { params: { id }, query: finish })

/** The files a printer or a screen asks for: of this piece, or of all that are shown. */
export function FileRows({ subject, contacts, isChanged, finish, setFinish }: Props) {
  const [pattern, setPattern] = useState(FILE_NAME_PATTERN_USUAL)
  const file = useFile(printApi.order)
  const set = (more: Partial<Finish>) => {
    setFinish({ ...finish, ...more })
  }
  const patternFault = fileNameFault(pattern)
  const total = contacts.total ?? 0
  return (
    <Part title="Files">
      <FinishRows finish={finish} set={set} />
      <Row name="Names in ZIP">
        <TextCell label="Names of the files" value={pattern} max={200} set={setPattern} />
        {patternFault !== null && (
          <Typography variant="caption" color="error" role="alert">
            {patternFault}
          </Typography>
        )}
      </Row>
      <Stack direction="row" sx={{ gap: 1, pt: 1, flexWrap: 'wrap' }}>
        <Button variant="contained" href={fileHref(subject, finish)} disabled={isChanged}>
          Download
        </Button>
        <Button
          variant="outlined"
          disabled={patternFault !== null || total === 0}
          onClick={() => {
            void file.order({ body: { ...piecesOf(subject, 'all', contacts), pattern, finish } })
          }}
        >
          ZIP of {quantity(total, 'piece')}
        </Button>
        <Button
          variant="outlined"
          component={Link}
          to={`/print-here/${subject.kind}/${String(subject.id)}`}
          target="_blank"
        >
          Print here
        </Button>
      </Stack>
      {isChanged && (
        <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5 }}>
          Files are made of what is saved. Save or discard first.
        </Typography>
      )}
      {file.fault !== null && (
        <Typography variant="body2" color="error" role="alert" sx={{ mt: 0.5 }}>
          {file.fault}
        </Typography>
      )}
    </Part>
  )
}
