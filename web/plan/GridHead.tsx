import { Box } from '@mui/material'
import type { GridColumn } from './columns.tsx'
import { MARK_PX, ROW_PX } from './GridRow.tsx'
import type { Listing } from '../codes/index.ts'

const WIDTH_MIN = 44

const CHOSEN_MARKS = { all: '✓', some: '–', none: '' } as const
const ARIA_SORT = { asc: 'ascending', desc: 'descending' } as const

interface Props {
  readonly columns: readonly GridColumn[]
  readonly widths: readonly number[]
  readonly width: number
  readonly listing: Listing
  readonly chosen: 'none' | 'some' | 'all'
  readonly sortBy: (sort: Listing['sort'], order: Listing['order']) => void
  readonly resize: (id: string, width: number) => void
  readonly resized: () => void
  readonly chooseAll: () => void
}

/** The headings: a click sorts, the edge is drawn to another width. The same is in “Columns and order”, by keyboard. */
export function GridHead({
  columns,
  widths,
  width,
  listing,
  sortBy,
  resize,
  resized,
  chosen,
  chooseAll,
}: Props) {
  return (
    <Box
      role="row"
      aria-rowindex={1}
      sx={{
        position: 'sticky',
        top: 0,
        zIndex: 2,
        width,
        height: ROW_PX,
        display: 'flex',
        bgcolor: 'background.default',
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box
        role="columnheader"
        aria-colindex={1}
        aria-label="Selected"
        onClick={chooseAll}
        sx={{ width: MARK_PX, flexShrink: 0, display: 'grid', placeItems: 'center', cursor: 'pointer' }}
      >
        <Box
          aria-hidden
          sx={{
            width: 16,
            height: 16,
            borderRadius: 0.5,
            border: 1.5,
            borderColor: 'text.secondary',
            fontSize: 12,
            lineHeight: '13px',
            textAlign: 'center',
          }}
        >
          {CHOSEN_MARKS[chosen]}
        </Box>
      </Box>
      {columns.map((column, j) => (
        <HeadCell
          key={column.id}
          column={column}
          at={j}
          width={widths[j] ?? column.width}
          listing={listing}
          sortBy={sortBy}
          resize={resize}
          resized={resized}
        />
      ))}
    </Box>
  )
}

type HeadCellProps = Pick<Props, 'listing' | 'sortBy' | 'resize' | 'resized'> & {
  readonly column: GridColumn
  readonly at: number
  readonly width: number
}

function HeadCell({ column, at, width, listing, sortBy, resize, resized }: HeadCellProps) {
  const { sort } = column
  const isSorted = sort !== null && listing.sort === sort
  const resizeTo = (to: number) => {
    resize(column.id, to)
  }
  return (
    <Box
      role="columnheader"
      aria-colindex={at + 2}
      aria-sort={isSorted ? ARIA_SORT[listing.order ?? 'desc'] : undefined}
      onClick={() => {
        if (sort !== null) sortBy(sort, isSorted && listing.order === 'asc' ? 'desc' : 'asc')
      }}
      sx={{
        width,
        flexShrink: 0,
        px: 1,
        display: 'flex',
        alignItems: 'center',
        justifyContent: column.right ? 'flex-end' : 'flex-start',
        fontWeight: 650,
        fontSize: '0.8125rem',
        position: 'relative',
        cursor: sort === null ? 'default' : 'pointer',
        userSelect: 'none',
        minWidth: 0,
      }}
    >
      <Box component="span" sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {column.title}
      </Box>
      {isSorted && (
        <Box component="span" aria-hidden sx={{ ml: 0.5 }}>
          {listing.order === 'asc' ? '↑' : '↓'}
        </Box>
      )}
      <Box
        aria-hidden
        onPointerDown={drawEdge(width, resizeTo, resized)}
        onClick={(event) => {
          event.stopPropagation()
        }}
        sx={{
          position: 'absolute',
          right: -3,
          top: 8,
          bottom: 8,
          width: 7,
          cursor: 'col-resize',
          zIndex: 1,
          '&::after': {
            content: '""',
            position: 'absolute',
            left: 3,
            top: 0,
            bottom: 0,
            borderLeft: 1,
            borderColor: 'divider',
          },
        }}
      />
    </Box>
  )
}

/** Draws the edge of a column to another width, for as long as the pointer is down. */
function drawEdge(from: number, resize: (width: number) => void, resized: () => void) {
  return (event: React.PointerEvent<HTMLElement>) => {
    event.preventDefault()
    event.stopPropagation()
    const handle = event.currentTarget
    const start = event.clientX
    handle.setPointerCapture(event.pointerId)
    const move = (moved: PointerEvent) => {
      resize(Math.max(WIDTH_MIN, Math.round(from + moved.clientX - start)))
    }
    const end = () => {
      handle.removeEventListener('pointermove', move)
      resized()
    }
    handle.addEventListener('pointermove', move)
    handle.addEventListener('pointerup', end, { once: true })
    handle.addEventListener('pointercancel', end, { once: true })
  }
}
