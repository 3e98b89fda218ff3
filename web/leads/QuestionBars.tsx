import { Box, Link, Stack, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { number, rateWithin } from '@flimbo/core/formats'
import type { AnswerCount, QuestionNumbers } from '@flimbo/core/leads'
import { Link as RouterLink } from 'react-router'
import { answerHref } from './filter.ts'
import { decimal, meanWithin } from './mean.ts'

interface Props {
  readonly numbers: QuestionNumbers
  /** What the leads behind a bar are narrowed to besides. */
  readonly narrowed: Readonly<Record<string, string>>
}

/** A mean with its interval, and what else its values have in common; empty of none. */
export function meanInWords(numbers: Extract<QuestionNumbers, { kind: 'values' }>): string {
  const { spread } = numbers
  if (!spread) return ''
  return `Mean ${meanWithin(spread)}, median ${decimal(spread.median)}`
}

/** What one question was answered with: a bar each answer, that leads to the leads behind it. */
export function QuestionBars({ numbers, narrowed }: Props) {
  if (numbers.kind === 'answered')
    return (
      <Typography variant="body2" color="textSecondary">
        Not counted: it tells who somebody is, or is a file.
      </Typography>
    )
  if (numbers.kind === 'words') return <WordList numbers={numbers} narrowed={narrowed} />
  if (numbers.answered === 0)
    return (
      <Typography variant="body2" color="textSecondary">
        Nobody answered this yet.
      </Typography>
    )
  return (
    <>
      {numbers.kind === 'values' && (
        <Typography variant="body2" sx={{ mb: 0.5 }}>
          {meanInWords(numbers)}
        </Typography>
      )}
      <Bars numbers={numbers} rows={numbers.rows} narrowed={narrowed} />
    </>
  )
}

function Bars({ numbers, rows, narrowed }: Props & { readonly rows: readonly AnswerCount[] }) {
  const most = Math.max(1, ...rows.map(({ count }) => count))
  const { question, title } = numbers
  return (
    <Table size="small" aria-label={title} sx={{ tableLayout: 'fixed', '& td, & th': { px: 0.5, py: 0.5 } }}>
      <TableHead>
        <TableRow>
          <TableCell>{numbers.kind === 'ranks' ? 'First place' : 'Answer'}</TableCell>
          <TableCell align="right" sx={{ width: 60 }}>
            Leads
          </TableCell>
          <TableCell align="right" sx={{ width: 170 }}>
            Share
          </TableCell>
          {numbers.kind === 'ranks' && (
            <TableCell align="right" sx={{ width: 90 }}>
              Mean place
            </TableCell>
          )}
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.map(({ key, label, count, share }, i) => (
          <TableRow key={key}>
            <TableCell component="th" scope="row" sx={{ position: 'relative', fontWeight: 400 }}>
              <Box
                aria-hidden
                sx={{
                  position: 'absolute',
                  left: 0,
                  bottom: 2,
                  height: 3,
                  width: `${String((count / most) * 100)}%`,
                  bgcolor: 'primary.main',
                }}
              />
              <Typography variant="body2" component="span" noWrap sx={{ display: 'block' }}>
                {count === 0 ? (
                  label
                ) : (
                  <Link component={RouterLink} to={answerHref(narrowed, question, key, `${title}: ${label}`)}>
                    {label}
                  </Link>
                )}
              </Typography>
            </TableCell>
            <TableCell align="right">{number(count)}</TableCell>
            <TableCell align="right">{rateWithin(share)}</TableCell>
            {numbers.kind === 'ranks' && (
              <TableCell align="right">{decimal(numbers.rows[i]?.meanPlace ?? 0)}</TableCell>
            )}
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}

/** The words that are said most, each with how many said it. */
function WordList({
  numbers,
  narrowed,
}: { numbers: Extract<QuestionNumbers, { kind: 'words' }> } & Pick<Props, 'narrowed'>) {
  if (numbers.rows.length === 0)
    return (
      <Typography variant="body2" color="textSecondary">
        Nobody wrote anything yet.
      </Typography>
    )
  return (
    <Stack
      component="ul"
      direction="row"
      aria-label={`Words: ${numbers.title}`}
      sx={{ listStyle: 'none', m: 0, p: 0, flexWrap: 'wrap', columnGap: 2, rowGap: 0.5 }}
    >
      {numbers.rows.map(({ key, count }) => (
        <Typography component="li" variant="body2" key={key}>
          <Link
            component={RouterLink}
            underline="always"
            to={`?${new URLSearchParams({ ...narrowed, q: key }).toString()}`}
          >
            {key}
          </Link>{' '}
          {number(count)}
        </Typography>
      ))}
    </Stack>
  )
}
