import { Box, Link, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material'
import { country, number, orUnknown, share } from '@flimbo/core/formats'
import type { LeadNumbers, NumbersBy, QuestionNumbers } from '@flimbo/core/leads'
import { Link as RouterLink } from 'react-router'
import { answerHref, rowOf } from './filter.ts'
import { meanWithin } from './mean.ts'

type Group = LeadNumbers['groups'][number]

/** More answers than can be read beside each other are left to the bars. */
const COLUMNS_MAX = 11

/** What a group is called. */
export function groupName({ key, name }: { key: string; name: string }, by: NumbersBy | 'medium'): string {
  if (by === 'country') return country(key)
  if (by === 'city') {
    const [code = '', , city = ''] = key.split('\t')
    return city === '' ? 'Not known' : `${city}, ${country(code)}`
  }
  return orUnknown(name)
}

function meanOf(numbers: QuestionNumbers | undefined): string {
  return numbers?.kind === 'values' && numbers.spread ? meanWithin(numbers.spread) : '–'
}

/** One question by what is compared: a row each piece, place, device or month. */
export function QuestionGroups({
  question,
  groups,
  by,
  narrowed,
}: {
  question: Extract<QuestionNumbers, { kind: 'counts' | 'ranks' | 'values' }>
  groups: readonly Group[]
  by: NumbersBy
  narrowed: Readonly<Record<string, string>>
}) {
  const columns = question.rows.slice(0, COLUMNS_MAX)
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Table size="small" aria-label={`${question.title}, compared`}>
        <TableHead>
          <TableRow>
            <TableCell />
            <TableCell align="right">Answered</TableCell>
            {question.kind === 'values' && <TableCell align="right">Mean (95 %)</TableCell>}
            {columns.map(({ key, label }) => (
              <TableCell key={key} align="right">
                {label}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {groups.map((group) => {
            const own = group.questions.find((each) => each.question === question.question)
            const counts = new Map(
              own && 'rows' in own ? own.rows.map(({ key, count }) => [key, count] as const) : [],
            )
            const answered = own?.answered ?? 0
            const within = { ...narrowed, ...rowOf(by, group.key) }
            return (
              <TableRow key={group.key}>
                <TableCell component="th" scope="row" sx={{ fontWeight: 400 }}>
                  {groupName(group, by)}
                </TableCell>
                <TableCell align="right">{number(answered)}</TableCell>
                {question.kind === 'values' && <TableCell align="right">{meanOf(own)}</TableCell>}
                {columns.map(({ key, label }) => {
                  const count = counts.get(key) ?? 0
                  const words = `${number(count)} (${share(count, answered)})`
                  return (
                    <TableCell key={key} align="right" sx={{ whiteSpace: 'nowrap' }}>
                      {count > 0 ? (
                        <Link
                          component={RouterLink}
                          to={answerHref(within, question.question, key, `${question.title}: ${label}`)}
                        >
                          {words}
                        </Link>
                      ) : (
                        words
                      )}
                    </TableCell>
                  )
                })}
              </TableRow>
            )
          })}
        </TableBody>
      </Table>
    </Box>
  )
}
