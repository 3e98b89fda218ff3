import DragIndicatorIcon from '@mui/icons-material/DragIndicator'
import { Box, ButtonBase, IconButton, Typography } from '@mui/material'
import { CSS } from '@dnd-kit/utilities'
import { useSortable } from '@dnd-kit/sortable'
import { whoInWords } from '@flimbo/core/conditions'
import type { Lane } from '@flimbo/core/routing'
import type { KeyboardEvent, ReactNode } from 'react'
import { number, share } from '@flimbo/core/formats'

interface TrackProps {
  readonly place: string
  readonly sentence: string
  readonly aside?: string | undefined
  readonly leads: string
  /** Null where they are counted elsewhere. */
  readonly scans: number | null
  readonly all: number
  readonly isLit: boolean
  readonly isChosen: boolean
  readonly isResting?: boolean
  readonly isLast?: boolean
  readonly choose: () => void
  readonly onKeyDown?: (event: KeyboardEvent) => void
  readonly handle?: ReactNode
}

/** One line of the signal plan: the line the scans come along, its switch, who leaves here, and where to. */
export function Track({
  place,
  sentence,
  aside,
  leads,
  scans,
  all,
  isLit,
  isChosen,
  isResting = false,
  isLast = false,
  choose,
  onKeyDown,
  handle,
}: TrackProps) {
  const unlit = isResting ? 'divider' : 'primary.main'
  const colour = isLit ? 'warning.main' : unlit
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'stretch',
        bgcolor: isChosen ? 'action.selected' : undefined,
        borderBottom: isLast ? 0 : 1,
        borderColor: 'divider',
      }}
    >
      <Box sx={{ width: 28, display: 'flex', alignItems: 'center', justifyContent: 'center', flexShrink: 0 }}>
        {handle}
      </Box>
      <Box aria-hidden sx={{ width: 30, position: 'relative', flexShrink: 0 }}>
        <Box
          sx={{
            position: 'absolute',
            left: 8,
            top: 0,
            bottom: isLast ? '50%' : 0,
            width: 3,
            bgcolor: 'primary.main',
          }}
        />
        <Box
          sx={{
            position: 'absolute',
            left: 8,
            right: 0,
            top: 'calc(50% - 1.5px)',
            height: 3,
            bgcolor: colour,
            borderTopRightRadius: 3,
          }}
        />
        <Box
          sx={{
            position: 'absolute',
            left: 4,
            top: 'calc(50% - 5.5px)',
            width: 11,
            height: 11,
            borderRadius: '50%',
            border: 2,
            borderColor: colour,
            bgcolor: isLit ? 'warning.main' : 'background.paper',
          }}
        />
      </Box>
      <ButtonBase
        onClick={choose}
        onKeyDown={onKeyDown}
        aria-current={isChosen}
        aria-keyshortcuts={onKeyDown ? 'Alt+ArrowUp Alt+ArrowDown' : undefined}
        sx={{
          flex: 1,
          minWidth: 0,
          display: 'grid',
          gridTemplateColumns: 'minmax(0, 1fr) 84px minmax(0, 0.8fr)',
          gap: 1.5,
          alignItems: 'center',
          textAlign: 'left',
          py: 1,
          pr: 2,
          pl: 0.5,
          minHeight: 52,
          fontFamily: 'inherit',
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Typography
            sx={{
              fontWeight: place === '' ? 650 : 400,
              opacity: isResting ? 0.75 : 1,
              overflowWrap: 'anywhere',
            }}
          >
            {place !== '' && (
              <Box component="span" sx={{ color: 'text.secondary', mr: 0.5 }}>
                {place}{' '}
              </Box>
            )}
            {sentence}
          </Typography>
          {aside !== undefined && (
            <Typography variant="body2" color="textSecondary">
              {aside}
            </Typography>
          )}
        </Box>
        {scans === null ? (
          <span />
        ) : (
          <Box sx={{ textAlign: 'right' }}>
            <Typography variant="body2">
              {number(scans)}{' '}
              <Box component="span" sx={{ color: 'text.secondary' }}>
                {share(scans, all)}
              </Box>
            </Typography>
            <Box
              aria-hidden
              sx={{ height: 4, bgcolor: 'divider', borderRadius: 1, overflow: 'hidden', mt: 0.25 }}
            >
              <Box
                sx={{
                  height: 1,
                  width: `${String(all === 0 ? 0 : (100 * scans) / all)}%`,
                  bgcolor: isLit ? 'warning.main' : 'primary.main',
                }}
              />
            </Box>
          </Box>
        )}
        <Box sx={{ display: 'flex', gap: 0.75, minWidth: 0 }}>
          <Box component="span" aria-hidden sx={{ color: isLit ? 'warning.main' : 'text.secondary' }}>
            →
          </Box>
          <Typography
            variant="mono"
            sx={{
              minWidth: 0,
              overflowWrap: 'anywhere',
              display: '-webkit-box',
              WebkitLineClamp: 3,
              WebkitBoxOrient: 'vertical',
              overflow: 'hidden',
            }}
          >
            {leads}
          </Typography>
        </Box>
      </ButtonBase>
    </Box>
  )
}

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
          [lane.name === '' ? '' : sentence, lane.resting ? 'resting: takes no scan' : '']
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
