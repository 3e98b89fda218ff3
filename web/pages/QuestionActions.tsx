import ArrowDownIcon from '@mui/icons-material/ArrowDownward'
import ArrowUpIcon from '@mui/icons-material/ArrowUpward'
import CopyIcon from '@mui/icons-material/ContentCopyOutlined'
import DeleteIcon from '@mui/icons-material/DeleteOutlineOutlined'
import { IconButton, Stack, Tooltip } from '@mui/material'
import type { ReactNode } from 'react'

interface Props {
  readonly title: string
  readonly isFirst: boolean
  readonly isLast: boolean
  readonly move: (by: -1 | 1) => void
  readonly duplicate: () => void
  readonly remove: () => void
}

/** What can be done with a question as a whole. */
export function QuestionActions({ title, isFirst, isLast, move, duplicate, remove }: Props) {
  const action = (name: string, icon: ReactNode, press: () => void, isOff = false) => (
    <Tooltip title={name}>
      <span>
        <IconButton size="small" aria-label={`${name}: ${title}`} disabled={isOff} onClick={press}>
          {icon}
        </IconButton>
      </span>
    </Tooltip>
  )
  return (
    <Stack direction="row" sx={{ justifyContent: 'flex-end' }}>
      {action(
        'Move up',
        <ArrowUpIcon fontSize="small" />,
        () => {
          move(-1)
        },
        isFirst,
      )}
      {action(
        'Move down',
        <ArrowDownIcon fontSize="small" />,
        () => {
          move(1)
        },
        isLast,
      )}
      {action('Duplicate', <CopyIcon fontSize="small" />, duplicate)}
      {action('Remove', <DeleteIcon fontSize="small" />, remove)}
    </Stack>
  )
}
