import DragIcon from '@mui/icons-material/DragIndicator'
import HiddenIcon from '@mui/icons-material/VisibilityOffOutlined'
import WarnIcon from '@mui/icons-material/ErrorOutlineOutlined'
import { Box, ButtonBase, IconButton, Stack, Typography } from '@mui/material'
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import {
  PART_KINDS,
  PART_NAMES,
  PARTS_MAX,
  partTitle,
  type PageContent,
  type Part,
  type PartKind,
} from '@flimbo/core/pages'
import { AddMenu } from './AddMenu.tsx'

interface Props {
  readonly content: PageContent
  readonly language: string
  /** The part that is edited; null for the page itself. */
  readonly chosen: string | null
  readonly choose: (id: string | null) => void
  readonly move: (id: string, to: number) => void
  readonly add: (kind: PartKind) => void
  /** Parts that keep the page from being published. */
  readonly faulty: ReadonlySet<string>
}

const DRAG_FROM_PX = 4

/** The parts of a page in their order: dragged, or moved with the space bar and the arrow keys. */
export function PartList({ content, language, chosen, choose, move, add, faulty }: Props) {
  const { parts } = content
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM_PX } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const dropped = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return
    move(
      String(active.id),
      parts.findIndex(({ id }) => id === over.id),
    )
  }
  return (
    <Stack sx={{ minWidth: 0 }}>
      <Row
        name="Page"
        words="Title, languages, style"
        isChosen={chosen === null}
        isFaulty={faulty.has('')}
        choose={() => {
          choose(null)
        }}
      />
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={parts.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <Box component="ol" aria-label="Parts" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {parts.map((part) => (
              <SortableRow
                key={part.id}
                part={part}
                title={partTitle(part, language, content.languages)}
                isChosen={chosen === part.id}
                isFaulty={faulty.has(part.id)}
                choose={() => {
                  choose(part.id)
                }}
              />
            ))}
          </Box>
        </SortableContext>
      </DndContext>
      <AddMenu
        label="Add part"
        kinds={PART_KINDS}
        names={PART_NAMES}
        add={add}
        isFull={parts.length >= PARTS_MAX}
      />
    </Stack>
  )
}

function SortableRow({
  part,
  title,
  isChosen,
  isFaulty,
  choose,
}: {
  part: Part
  title: { kind: string; words: string }
  isChosen: boolean
  isFaulty: boolean
  choose: () => void
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({
      id: part.id,
    })
  return (
    <Box
      component="li"
      ref={setNodeRef}
      sx={{ position: 'relative', zIndex: isDragging ? 1 : undefined }}
      style={{ transform: CSS.Translate.toString(transform) ?? '', transition: transition ?? '' }}
    >
      <Row
        name={title.kind}
        words={title.words}
        isChosen={isChosen}
        isFaulty={isFaulty}
        isHidden={part.isHidden}
        choose={choose}
        handle={
          <IconButton
            size="small"
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            aria-label={`Move ${title.kind.toLowerCase()}${title.words === '' ? '' : ` “${title.words}”`}`}
            sx={{ cursor: 'grab', touchAction: 'none' }}
          >
            <DragIcon fontSize="small" />
          </IconButton>
        }
      />
    </Box>
  )
}

function Row({
  name,
  words,
  isChosen,
  isFaulty,
  isHidden = false,
  choose,
  handle,
}: {
  name: string
  words: string
  isChosen: boolean
  isFaulty: boolean
  isHidden?: boolean
  choose: () => void
  handle?: React.ReactNode
}) {
  return (
    <Stack
      direction="row"
      sx={{
        alignItems: 'center',
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: isChosen ? 'action.selected' : 'background.paper',
        minHeight: 40,
      }}
    >
      {handle ?? <Box sx={{ width: 12 }} />}
      <ButtonBase
        onClick={choose}
        aria-current={isChosen}
        sx={{
          flex: 1,
          minWidth: 0,
          justifyContent: 'flex-start',
          textAlign: 'left',
          py: 0.75,
          pr: 1,
          gap: 0.75,
        }}
      >
        <Box sx={{ flex: 1, minWidth: 0, opacity: isHidden ? 0.65 : 1 }}>
          <Typography variant="body2" noWrap sx={{ fontWeight: 650 }}>
            {name}
          </Typography>
          {words !== '' && (
            <Typography variant="caption" color="textSecondary" noWrap component="p" dir="auto">
              {words}
            </Typography>
          )}
        </Box>
        {isHidden && <HiddenIcon fontSize="small" titleAccess="Hidden" color="action" />}
        {isFaulty && <WarnIcon fontSize="small" titleAccess="Not finished" color="warning" />}
      </ButtonBase>
    </Stack>
  )
}
