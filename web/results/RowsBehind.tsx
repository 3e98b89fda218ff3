import { Button, Chip } from '@mui/material'
import { useState, type ComponentProps } from 'react'
import { Sheet } from '../ui/index.ts'
import { Rows } from './Rows.tsx'

type Props = ComponentProps<typeof Rows> & {
  /** What the way is called on the plan: the place of a lane. */
  readonly lane: string | null
  /** Shows the scans of every way again. */
  readonly all: () => void
}

/** The scans that the figures are counted from. */
export function RowsBehind({ lane, all, ...rows }: Props) {
  const { exit } = rows
  const [rowsShown, setRowsShown] = useState(exit !== undefined)
  return (
    <Sheet
      title="The rows behind it"
      pad={false}
      aside={
        <Button
          onClick={() => {
            setRowsShown(!rowsShown)
          }}
          aria-expanded={rowsShown}
        >
          {rowsShown ? 'Hide' : 'Show the rows'}
        </Button>
      }
    >
      {exit !== undefined && (
        <Chip
          sx={{ m: 1 }}
          label={
            exit === 'otherwise' ? 'Only scans that no lane took' : `Only scans of the lane ${lane ?? exit}`
          }
          onDelete={all}
        />
      )}
      {rowsShown && <Rows {...rows} />}
    </Sheet>
  )
}
