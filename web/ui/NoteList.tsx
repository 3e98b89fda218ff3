import { Link, Paper, Stack, Typography, type SxProps } from '@mui/material'
import { number } from '@flimbo/core/formats'
import { useId, type ReactNode } from 'react'
import { Link as RouterLink } from 'react-router'

/** Something that somebody is to know of: what it is about leads there, and the rest of the sentence. */
export interface Note {
  readonly key: string | number
  readonly to: string
  readonly about: string
  readonly rest: ReactNode
}

/** More are counted. */
const SHOWN = 6

/** What waits for somebody, the first few as sentences; nothing where nothing does. */
export function NoteList({
  title,
  notes,
  total = notes.length,
  of = '',
  action,
  sx,
}: {
  readonly title: string
  readonly notes: readonly Note[]
  readonly total?: number
  /** What those that are only counted are. */
  readonly of?: string
  readonly action?: ReactNode
  readonly sx?: SxProps
}) {
  const id = useId()
  if (total === 0) return null
  const shown = notes.slice(0, SHOWN)
  return (
    <Paper variant="outlined" component="section" aria-labelledby={id} sx={{ p: 2, mb: 2, ...sx }}>
      <Stack direction="row" sx={{ alignItems: 'center', mb: 1 }}>
        <Typography id={id} variant="h2" sx={{ flex: 1 }}>
          {title}
        </Typography>
        {action}
      </Stack>
      <Stack component="ul" sx={{ listStyle: 'none', m: 0, p: 0, gap: 0.75 }}>
        {shown.map(({ key, to, about, rest }) => (
          <Typography component="li" variant="body2" key={key}>
            <Link component={RouterLink} to={to} sx={{ fontWeight: 650 }}>
              {about}
            </Link>
            {rest}
          </Typography>
        ))}
        {total > shown.length && (
          <Typography component="li" variant="body2" color="textSecondary">
            and {number(total - shown.length)} more{of === '' ? '' : ` ${of}`}
          </Typography>
        )}
      </Stack>
    </Paper>
  )
}
