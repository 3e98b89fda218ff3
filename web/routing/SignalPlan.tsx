import { Box } from '@mui/material'
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
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { languageName, whoInWords } from '@flimbo/core/conditions'
import {
  addressInWords,
  outcomeInWords,
  type ExitTally,
  type Lane,
  type Names,
  type WholeRoute,
} from '@flimbo/core/routing'
import { LaneRow } from './LaneRow.tsx'
import { LifeStrip } from './LifeStrip.tsx'
import { Track } from './Track.tsx'
import { scansAt } from './useRoutePlan.ts'
import type { DraftState } from './useDraft.ts'

export type Chosen =
  { kind: 'lane'; id: string } | { kind: 'otherwise' | 'life' | 'onTheWay' | 'shared' | 'apps' } | null

interface Props {
  readonly route: WholeRoute
  readonly state: DraftState
  /** The set of lanes it shares, and those lanes as it asks them. */
  readonly set: { readonly name: string; readonly lanes: readonly Lane[] } | null
  readonly exits: readonly ExitTally[]
  /** Scans that passed the lanes. */
  readonly passing: number
  readonly zone: string
  readonly names: Names
  readonly chosen: Chosen
  readonly choose: (chosen: Chosen) => void
  /** The exit that the test scan takes; null where none is made. */
  readonly lit: string | null
}

/** The route as a signal plan: scans come in at the left, pass the lanes in order, and leave at the right. */
export function SignalPlan({
  route,
  state: { draft, edit },
  set,
  exits,
  passing,
  zone,
  names,
  chosen,
  choose,
  lit,
}: Props) {
  const { lanes, life, shared } = draft.rules
  const ofSet = set?.lanes ?? []
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const scansOf = (exit: string) => scansAt(exits, exit)
  const move = (from: number, to: number) => {
    if (to >= 0 && to < lanes.length && from >= 0)
      edit((was) => ({ ...was, rules: { ...was.rules, lanes: arrayMove(was.rules.lanes, from, to) } }))
  }
  const indexOf = (id: string | number | undefined) => lanes.findIndex((lane) => lane.id === id)
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) move(indexOf(active.id), indexOf(over.id))
  }

  // The lanes of a set stand where they are asked, and are edited where the set is kept.
  const before = shared?.place === 'first' ? ofSet.length : 0
  const sharedTracks = (from: number) =>
    ofSet.map((lane, i) => (
      <Track
        key={lane.id}
        place={String(from + i + 1)}
        sentence={lane.name === '' ? whoInWords(lane.condition) : lane.name}
        aside={`shared: ${set?.name ?? ''}${lane.resting ? ' · turned off: takes no scan' : ''}`}
        leads={outcomeInWords(lane.outcome, names)}
        scans={scansOf(lane.id)}
        all={passing}
        isLit={lit === lane.id}
        isChosen={false}
        isResting={lane.resting}
        choose={() => {
          choose({ kind: 'shared' })
        }}
      />
    ))

  return (
    <Box role="region" aria-label="Signal plan">
      {life && (
        <LifeStrip
          names={names}
          life={life}
          taken={route.taken}
          forecast={route.forecast}
          zone={zone}
          exits={exits}
          choose={() => {
            choose({ kind: 'life' })
          }}
        />
      )}
      {shared?.place === 'first' && sharedTracks(0)}
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={lanes.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <Box component="ol" aria-label="Lanes, in order" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {lanes.map((lane: Lane, i) => (
              <LaneRow
                key={lane.id}
                lane={lane}
                place={before + i + 1}
                scans={scansOf(lane.id)}
                all={passing}
                leads={outcomeInWords(lane.outcome, names)}
                isLit={lit === lane.id}
                isChosen={chosen?.kind === 'lane' && chosen.id === lane.id}
                choose={() => {
                  choose({ kind: 'lane', id: lane.id })
                }}
                move={(by) => {
                  move(i, i + by)
                }}
              />
            ))}
          </Box>
        </SortableContext>
      </DndContext>
      {shared?.place === 'last' && sharedTracks(lanes.length)}
      <Track
        place=""
        sentence="Otherwise"
        aside={draft.rules.language === '' ? undefined : `in ${languageName(draft.rules.language)}`}
        leads={addressInWords(draft.destination)}
        scans={scansOf('otherwise')}
        all={passing}
        isLit={lit === 'otherwise'}
        isChosen={chosen?.kind === 'otherwise'}
        choose={() => {
          choose({ kind: 'otherwise' })
        }}
        isLast
      />
    </Box>
  )
}
