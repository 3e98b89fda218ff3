import { Box, Button, Link, Stack, Typography } from '@mui/material'
import { moment, number, quantity } from '@flimbo/core/formats'
import { printApi, RELEASE_FILES_MAX, type Release } from '@flimbo/core/print'
import { releaseSentence, type FileFormat, type Finish } from '@flimbo/core/symbol'
import { useState } from 'react'
import { hrefOf, sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Choice, Part, Row, TextCell } from './rows.tsx'
import { piecesOf, type Scope, type Subject } from './subject.ts'
import type { Contacts } from './useContacts.ts'

interface Props {
  readonly subject: Subject
  readonly contacts: Contacts
  readonly isChanged: boolean
  /** How files are finished, as the page of files says. */
  readonly finish: Finish
}

/** Lets pieces go to print, and shows what went before. */
export function ReleasePage({ subject, contacts, isChanged, finish }: Props) {
  const release = useChange(printApi.release)
  const [printer, setPrinter] = useState('')
  const [note, setNote] = useState('')
  const [scope, setScope] = useState<Scope>('one')
  const [failing, setFailing] = useState<'refuse' | 'release'>('refuse')
  const [more, setMore] = useState<readonly FileFormat[]>([])
  const total = contacts.total ?? 0
  const finishes = [finish, ...more.map((format) => ({ ...finish, format }))].slice(0, RELEASE_FILES_MAX)
  const mark = subject.release
  const count = scope === 'one' ? 1 : total
  return (
    <>
      <Part title="Release for print">
        <Row name="Pieces">
          <Choice
            label="Pieces to release"
            value={scope}
            choices={[
              { value: 'one', words: 'this piece' },
              { value: 'all', words: `all ${number(total)} that are shown` },
            ]}
            set={setScope}
          />
        </Row>
        <Row name="Files">
          <Typography variant="body2">{finish.format.toUpperCase()}, as the page Files says</Typography>
          <Choice
            label="Another file"
            value={more[0] ?? 'none'}
            choices={[
              { value: 'none', words: 'and no other' },
              ...(['svg', 'pdf', 'eps', 'png'] as const)
                .filter((format) => format !== finish.format)
                .map((format) => ({ value: format, words: `and ${format.toUpperCase()}` })),
            ]}
            set={(value) => {
              setMore(value === 'none' ? [] : [value])
            }}
          />
        </Row>
        <Row name="Printer">
          <TextCell label="Printer" value={printer} max={200} set={setPrinter} />
        </Row>
        <Row name="Note">
          <TextCell label="Note" value={note} max={1000} set={setNote} />
        </Row>
        <Row name="If one will fail">
          <Choice
            label="Pieces that will fail"
            value={failing}
            choices={[
              { value: 'refuse', words: 'leave it out' },
              { value: 'release', words: 'release it nevertheless' },
            ]}
            set={setFailing}
          />
        </Row>
        <Stack sx={{ pt: 1, gap: 0.5, alignItems: 'flex-start' }}>
          <Button
            variant="contained"
            disabled={release.isPending || isChanged || count === 0}
            onClick={() => {
              release.mutate({
                body: {
                  ...piecesOf(subject, scope, contacts),
                  finishes,
                  printer,
                  note,
                  failing,
                },
              })
            }}
          >
            Release {scope === 'one' ? 'this piece' : quantity(count, 'piece')} for print
          </Button>
          <Typography variant="body2" color="textSecondary">
            {isChanged
              ? 'What is saved is released. Save or discard first.'
              : 'Files, look, link and size are kept as they are now, for ever: reprints are the same to the byte.'}
          </Typography>
          {release.isError && (
            <Typography variant="body2" color="error" role="alert">
              {sentenceOf(release.error, 'Nothing was released. Try again.')}
            </Typography>
          )}
        </Stack>
      </Part>
      <Part title="Released">
        {mark && mark.changed.length > 0 && (
          <Typography variant="body2" color="warning" sx={{ py: 0.5 }}>
            {releaseSentence(mark)}
          </Typography>
        )}
        <Releases subject={subject} />
      </Part>
    </>
  )
}

function Releases({ subject: { kind, id } }: { subject: Subject }) {
  const { data } = useAnswer(kind === 'static' ? printApi.staticReleases : printApi.releases, {
    params: { id },
  })
  if (data?.rows.length === 0)
    return (
      <Typography variant="body2" color="textSecondary" sx={{ py: 0.5 }}>
        This piece was never released.
      </Typography>
    )
  return (
    <>
      {data?.rows.map((each) => (
        <Released key={each.id} release={each} />
      ))}
    </>
  )
}

function Released({ release }: { release: Release }) {
  const { zone } = useCampaign()
  const { id, number: count, at, by, printer, note, printRun, styleName, sizeMm, link, files } = release
  return (
    <Box sx={{ py: 0.75, borderBottom: 1, borderColor: 'divider' }}>
      <Typography variant="body2" sx={{ fontWeight: 650 }}>
        {count}. {moment(at, zone)} by {by}
      </Typography>
      <Typography variant="body2" sx={{ overflowWrap: 'anywhere' }}>
        {[
          printer && `to ${printer}`,
          printRun !== null && `run of ${number(printRun)}`,
          `${number(sizeMm)} mm`,
          styleName || 'Plain',
          link,
        ]
          .filter(Boolean)
          .join(', ')}
        {note && `. ${note}`}
      </Typography>
      {files.map(({ sum, name, bytes }) => (
        <Typography key={`${sum} ${name}`} variant="body2" noWrap>
          <Link href={hrefOf(printApi.releasedFile, { params: { id, sum } })} download={name}>
            {name}
          </Link>{' '}
          <Box component="span" sx={{ color: 'text.secondary' }} title={`SHA-256 ${sum}`}>
            {number(Math.ceil(bytes / 1024))} kB, {sum.slice(0, 12)}…
          </Box>
        </Typography>
      ))}
    </Box>
  )
}
