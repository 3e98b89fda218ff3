import DragIndicatorIcon from '@mui/icons-material/DragIndicator'
import { Box, IconButton } from '@mui/material'
import { CSS } from '@dnd-kit/utilities'
import { useSortable } from '@dnd-kit/sortable'
import { whoInWords } from '@flimbo/core/conditions'
import type { Lane } from '@flimbo/core/routing'
import type { KeyboardEvent } from 'react'
import { Track, type TrackProps } from './Track.tsx'

/** A lane in the plan: dragged by its handle, or moved with Alt and the arrows. */
export function LaneRow({
  lane,
  place,
  scans,
  all,
  leads,
  isLit,
  isChosen,
  choose,
  move,
}: Pick<TrackProps, 'scans' | 'all' | 'leads' | 'isLit' | 'isChosen' | 'choose'> & {
  lane: Lane
  place: number
  move: (by: number) => void
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: lane.id })
  const sentence = whoInWords(lane.condition)
  const onKeyDown = (event: KeyboardEvent) => {
    const by = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined
    if (by === undefined) return
    event.preventDefault()
    move(by)
  }
  return (
    <Box
      component="li"
      ref={setNodeRef}
      sx={{ bgcolor: 'background.paper', position: 'relative', zIndex: isDragging ? 2 : undefined }}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <Track
        place={String(place)}
        sentence={lane.name === '' ? sentence : lane.name}
        aside={
          [lane.name === '' ? '' : sentence, lane.resting ? 'turned off: takes no scan' : '']
            .filter((part) => part !== '')
            .join(' · ') || undefined
        }
        leads={leads}
        scans={scans}
        all={all}
        isLit={isLit}
        isChosen={isChosen}
        isResting={lane.resting}
        choose={choose}
        onKeyDown={onKeyDown}
        handle={
          <IconButton
            ref={setActivatorNodeRef}
            size="small"
            {...attributes}
            {...listeners}
            aria-label={`Move lane ${String(place)}`}
            sx={{ cursor: 'grab', color: 'text.secondary', touchAction: 'none' }}
          >
            <DragIndicatorIcon fontSize="inherit" />
          </IconButton>
        }
      />
    </Box>
  )
}
