import { Button, Chip } from '@mui/material'
import type { Results } from '@flimbo/core/results'
import { useState } from 'react'
import { Sheet } from '../ui/index.ts'
import { Rows } from './Rows.tsx'

interface Props {
  readonly data: Results
  readonly scope: Parameters<typeof Rows>[0]['scope']
  /** Only scans that left that way; everything where it is not given. */
  readonly exit: string | undefined
  /** What the way is called on the plan: the place of a lane. */
  readonly lane: string | null
  /** Shows the scans of every way again. */
  readonly all: () => void
}

/** The scans that the figures are counted from. */
export function RowsBehind({ data, scope, exit, lane, all }: Props) {
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
      {rowsShown && (
        <Rows scope={scope} exit={exit} from={data.period.from} to={data.period.to} zone={data.zone} />
      )}
    </Sheet>
  )
}
