import { Box, Stack } from '@mui/material'
import { useCallback, useRef, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { useCampaign } from '../campaigns/index.ts'
import { CodeInspector, NewPiece } from '../codes/index.ts'
import { Trouble } from '../ui/index.ts'
import { EmptyPlan, NoMatch } from './EmptyPlan.tsx'
import { MoveDialog } from './MoveDialog.tsx'
import { OutcomeLine } from './OutcomeLine.tsx'
import { PlanGrid } from './PlanGrid.tsx'
import { PlanToolbar } from './PlanToolbar.tsx'
import { ReviewStrip } from './ReviewStrip.tsx'
import { SelectionBar } from './SelectionBar.tsx'
import { useActivePiece } from './useActivePiece.ts'
import { useEdits } from './useEdits.ts'
import { useGridActions } from './useGridActions.ts'
import { usePlanData } from './usePlanData.ts'
import { usePlanKeys } from './usePlanKeys.ts'

/** The plan: a row a printed piece, edited in place; the chosen one stands at the right. */
export function PlanScreen() {
  const { id: campaignId } = useCampaign()
  const navigate = useNavigate()
  const [address, setAddress] = useSearchParams()
  const [editing, setEditing] = useState(0)
  const [moving, setMoving] = useState<readonly number[] | null>(null)
  const searchField = useRef<HTMLInputElement>(null)
  const inspected = Number(address.get('code')) || null
  const adding = address.get('new')
  const open = useCallback(
    (id: number | null) => {
      setAddress(id === null ? {} : { code: String(id) }, { replace: true })
    },
    [setAddress],
  )
  const close = () => {
    open(null)
  }
  const add = () => {
    setAddress({ new: '' }, { replace: true })
  }
  const addSeries = () => {
    setAddress({ new: 'series' }, { replace: true })
  }

  const plan = usePlanData()
  const { arrangement, blocks, total } = plan
  const { listing, narrowing, setNarrowing, columns } = arrangement
  const edits = useEdits()
  const { active, setActive, row, step } = useActivePiece(plan, inspected, open)
  const { grid, selection, selected, selectedCount } = useGridActions({
    blocks,
    listing,
    columns,
    named: plan.named,
    edits,
    total,
    arrangement,
    open,
    setMoving,
    setClosed: plan.setClosed,
    campaignId,
    navigate: (to) => {
      void navigate(to)
    },
  })
  usePlanKeys({
    row,
    step,
    edit: (id) => {
      if (id !== null && inspected === null) open(id)
      setEditing((n) => n + 1)
    },
    grid,
    add,
    edits,
    searchField,
  })

  const isEmpty = blocks.total === 0 && plan.statics.length === 0
  const isFiltered = Object.keys(narrowing).length > 0
  return (
    <Box sx={{ flex: 'none', display: 'flex', height: 'calc(100vh - 95px)', overflow: 'hidden' }}>
      <Stack sx={{ flex: 1, minWidth: 0, p: 2, gap: 1 }}>
        <PlanToolbar plan={plan} edits={edits} searchField={searchField} add={add} addSeries={addSeries} />
        <ReviewStrip
          campaignId={campaignId}
          arrangement={arrangement}
          fix={(kind, field) => {
            void edits.edit({ matching: listing.filter, fix: { kind, field } })
          }}
        />
        {selectedCount > 0 && (
          <SelectionBar
            count={selectedCount}
            columns={plan.columns}
            archived={narrowing.shown === 'archived'}
            actions={selection}
          />
        )}
        <OutcomeLine
          outcome={edits.outcome}
          close={() => {
            edits.say(null)
          }}
        />
        {blocks.error && <Trouble error={blocks.error} retry={blocks.retry} />}
        {isEmpty && !isFiltered && <EmptyPlan add={add} />}
        {isEmpty && isFiltered && (
          <NoMatch
            showAll={() => {
              setNarrowing({})
              plan.setSearch('')
            }}
          />
        )}
        {!isEmpty && arrangement.ready && (
          <PlanGrid
            lines={plan.lines}
            total={total}
            blocks={blocks}
            statics={plan.statics}
            columns={columns}
            widths={arrangement.widths}
            listing={listing}
            selected={selected}
            inspected={inspected}
            active={active}
            setActive={setActive}
            offers={plan.offers}
            named={plan.named}
            actions={grid}
            onSeen={plan.setSeen}
          />
        )}
      </Stack>
      {adding !== null && <NewPiece series={adding === 'series'} close={close} made={open} />}
      {inspected !== null && adding === null && (
        <CodeInspector id={inspected} close={close} focusDestination={editing} />
      )}
      {moving !== null && (
        <MoveDialog
          ids={moving}
          campaignId={campaignId}
          close={() => {
            setMoving(null)
          }}
          moved={(sentence) => {
            setMoving(null)
            selection.clear()
            edits.say({ kind: 'done', sentence, details: [] })
          }}
        />
      )}
    </Box>
  )
}
