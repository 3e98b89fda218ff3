import AddIcon from '@mui/icons-material/Add'
import UndoIcon from '@mui/icons-material/UndoOutlined'
import RedoIcon from '@mui/icons-material/RedoOutlined'
import {
  Alert,
  Box,
  Button,
  IconButton,
  MenuItem,
  Stack,
  TextField,
  Tooltip,
  Typography,
} from '@mui/material'
import { codesApi, type CodeFilter } from '@flimbo/core/codes'
import { routesApi } from '@flimbo/core/routing'
import { taggingApi } from '@flimbo/core/tagging'
import { workspaceApi } from '@flimbo/core/workspace'
import { useCallback, useDeferredValue, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { CodeInspector, NewPiece } from '../codes/index.ts'
import { counted } from '@flimbo/core/formats'
import { Empty, Trouble, useKeys } from '../ui/index.ts'
import { ArrangeMenu } from './ArrangeMenu.tsx'
import { gridColumns } from './columns.tsx'
import { FilesMenu } from './FilesMenu.tsx'
import { linesOf } from './lines.ts'
import { MoveDialog } from './MoveDialog.tsx'
import { OutcomeLine } from './OutcomeLine.tsx'
import { PlanGrid } from './PlanGrid.tsx'
import type { Cell } from './range.ts'
import { ReviewStrip } from './ReviewStrip.tsx'
import { SelectionBar } from './SelectionBar.tsx'
import { useArrangement } from './useArrangement.ts'
import { BLOCK, useBlocks } from './useBlocks.ts'
import { useEdits } from './useEdits.ts'
import { useGridActions } from './useGridActions.ts'
import { ViewsMenu } from './ViewsMenu.tsx'

const SHOWN = { current: 'in the plan', archived: 'archived', deleted: 'deleted' } as const

/** The plan: a row a printed piece, edited in place; the chosen one stands at the right. */
export function PlanScreen() {
  const campaign = useCampaign()
  const navigate = useNavigate()
  const [address, setAddress] = useSearchParams()
  const [search, setSearch] = useState('')
  const [active, setActive] = useState<Cell>({ piece: 0, column: 1 })
  const [seen, setSeen] = useState({ first: 0, last: BLOCK })
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set())
  const [editing, setEditing] = useState(0)
  const [moving, setMoving] = useState<readonly number[] | null>(null)
  const searchField = useRef<HTMLInputElement>(null)
  const chosenCode = Number(address.get('code')) || null
  const adding = address.get('new')

  const rules = useAnswer(taggingApi.rules, {})
  const values = useAnswer(taggingApi.values, {})
  const settings = useAnswer(workspaceApi.settings, {})
  const currency = settings.data?.value.currency ?? ''
  const routes = useAnswer(routesApi.names, { query: { campaignId: campaign.id } })
  const all = useMemo(
    () => gridColumns(rules.data?.value.parameters ?? [], campaign.zone, currency),
    [rules.data, campaign.zone, currency],
  )
  const arrangement = useArrangement(campaign.id, all)
  const { listing, narrowing, setNarrowing } = arrangement
  const asked = useDeferredValue(search.trim())
  useEffect(() => {
    setNarrowing(({ search: _search, ...rest }) => (asked === '' ? rest : { ...rest, search: asked }))
  }, [asked, setNarrowing])

  const blocks = useBlocks(listing, seen.first, seen.last)
  const total = blocks.total ?? 0
  const groups = useAnswer(
    codesApi.groups,
    { query: { ...listing.filter, by: listing.group || 'medium' } },
    { enabled: listing.group !== '' },
  )
  const grouped = listing.group === '' ? null : (groups.data?.rows ?? null)
  const lines = useMemo(() => linesOf(total, grouped, closed), [total, grouped, closed])
  const edits = useEdits()
  const routeNumbers = useMemo(
    () => new Map((routes.data?.rows ?? []).map(({ id, name }) => [name.toLowerCase(), id])),
    [routes.data],
  )
  const offers = useMemo(
    () => ({
      medium: [
        ...new Set([
          ...(rules.data?.value.media ?? []),
          ...(values.data?.medium ?? []).map(({ value }) => value),
        ]),
      ],
      source: (values.data?.source ?? []).map(({ value }) => value),
      content: (values.data?.content ?? []).map(({ value }) => value),
      term: (values.data?.term ?? []).map(({ value }) => value),
      route: (routes.data?.rows ?? []).map(({ name }) => name),
    }),
    [rules.data, values.data, routes.data],
  )

  const open = useCallback(
    (id: number | null) => {
      setAddress(id === null ? {} : { code: String(id) }, { replace: true })
    },
    [setAddress],
  )
  const { grid, selection, chosen, chosenCount } = useGridActions({
    blocks,
    listing,
    columns: arrangement.columns,
    routes: routeNumbers,
    edits,
    total,
    arrangement,
    open,
    setMoving,
    setClosed,
    campaignId: campaign.id,
    navigate: (to) => {
      void navigate(to)
    },
  })

  const last = Math.max(0, total - 1)
  const place = {
    piece: Math.min(active.piece, last),
    column: Math.min(active.column, Math.max(0, arrangement.columns.length - 1)),
  }
  const add = () => {
    setAddress({ new: '' }, { replace: true })
  }
  const step = (by: number) => {
    const piece = chosenCode === null ? place.piece : lines.step(place.piece, by)
    setActive({ piece, column: place.column })
    const row = blocks.at(piece)
    if (row) open(row.id)
  }
  useKeys({
    j: () => {
      step(1)
    },
    k: () => {
      step(-1)
    },
    e: () => {
      const row = blocks.at(place.piece)
      if (chosenCode === null && row) open(row.id)
      setEditing((n) => n + 1)
    },
    f: () => {
      const row = blocks.at(place.piece)
      if (row) grid.fix(row)
    },
    c: () => {
      const row = blocks.at(place.piece)
      if (row) grid.copyAddress(row)
    },
    n: add,
    '/': () => {
      searchField.current?.focus()
    },
    'ctrl+z': () => {
      edits.undo()
    },
    'ctrl+y': () => {
      edits.redo()
    },
  })
  // The inspected piece's row is the active one where it is on the screen: after a link led here, too.
  const followChosen = useEffectEvent(() => {
    if (chosenCode === null || blocks.at(active.piece)?.id === chosenCode) return
    // `seen` is as exact as blocks are: only another block is told.
    const end = (Math.floor(seen.last / BLOCK) + 1) * BLOCK
    for (let piece = Math.floor(seen.first / BLOCK) * BLOCK; piece < end; piece++)
      if (blocks.at(piece)?.id === chosenCode) {
        setActive((old) => ({ ...old, piece }))
        return
      }
  })
  // Only another piece, or its row coming in, moves the active cell; a click elsewhere must stand.
  useEffect(() => {
    followChosen()
  }, [chosenCode, blocks.total])
  const onSeen = useCallback((first: number, to: number) => {
    setSeen((old) =>
      Math.floor(old.first / BLOCK) === Math.floor(first / BLOCK) &&
      Math.floor(old.last / BLOCK) === Math.floor(to / BLOCK)
        ? old
        : { first, last: to },
    )
  }, [])

  const filtered = Object.keys(narrowing).length > 0
  const nothingYet = blocks.total === 0 && !filtered
  return (
    <Box sx={{ flex: 'none', display: 'flex', height: 'calc(100vh - 95px)', overflow: 'hidden' }}>
      <Stack sx={{ flex: 1, minWidth: 0, p: 2, gap: 1 }}>
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
          <Typography variant="h1">Plan</Typography>
          <Typography color="textSecondary" sx={{ flex: 1, minWidth: 80 }} role="status">
            {blocks.total !== undefined && counted(total, 'piece')}
          </Typography>
          <Tooltip title="Undo (Ctrl Z)">
            <span>
              <IconButton size="small" aria-label="Undo" disabled={!edits.canUndo} onClick={edits.undo}>
                <UndoIcon fontSize="small" />
              </IconButton>
            </span>
          </Tooltip>
          <Tooltip title="Redo (Ctrl Y)">
            <span>
              <IconButton size="small" aria-label="Redo" disabled={!edits.canRedo} onClick={edits.redo}>
                <RedoIcon fontSize="small" />
              </IconButton>
            </span>
          </Tooltip>
          <ViewsMenu arrangement={arrangement} />
          <ArrangeMenu all={all} arrangement={arrangement} />
          <FilesMenu
            filter={listing.filter}
            addSeries={() => {
              setAddress({ new: 'series' }, { replace: true })
            }}
          />
          <TextField
            select
            size="small"
            value={narrowing.shown ?? 'current'}
            onChange={(event) => {
              setNarrowing({ ...narrowing, shown: event.target.value as CodeFilter['shown'] })
            }}
            slotProps={{ htmlInput: { 'aria-label': 'Which pieces' } }}
            sx={{ minWidth: 110 }}
          >
            {Object.entries(SHOWN).map(([value, label]) => (
              <MenuItem key={value} value={value}>
                {label}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            size="small"
            inputRef={searchField}
            placeholder="Filter ( / )"
            value={search}
            onChange={(event) => {
              setSearch(event.target.value)
            }}
            sx={{ width: 140 }}
            slotProps={{ htmlInput: { 'aria-label': 'Filter the pieces' } }}
          />
          <Button variant="contained" startIcon={<AddIcon />} onClick={add}>
            Add a piece
          </Button>
        </Stack>
        <ReviewStrip
          campaignId={campaign.id}
          arrangement={arrangement}
          fix={(kind, field) => {
            void edits.edit({ matching: listing.filter, fix: { kind, field } })
          }}
        />
        {chosenCount > 0 && (
          <SelectionBar
            count={chosenCount}
            columns={all}
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
        {blocks.error && <Trouble error={blocks.error} again={blocks.retry} />}
        {nothingYet && (
          <Box sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
            <Empty
              title="Nothing is planned yet"
              text="A piece is one thing you print or send: a poster, a leaflet, a ticket. Name it, say how its visits are tagged, and where it leads; its short link and symbol are there at once. A plan in a spreadsheet can be imported or pasted."
              action={
                <Stack direction="row" spacing={1}>
                  <Button variant="contained" startIcon={<AddIcon />} onClick={add}>
                    Add the first piece
                  </Button>
                  <Button
                    variant="outlined"
                    onClick={() => {
                      void navigate('../import')
                    }}
                  >
                    Import a plan
                  </Button>
                </Stack>
              }
            />
          </Box>
        )}
        {!nothingYet && blocks.total === 0 && (
          <Alert
            severity="info"
            variant="outlined"
            action={
              <Button
                color="inherit"
                onClick={() => {
                  setNarrowing({})
                  setSearch('')
                }}
              >
                Show all pieces
              </Button>
            }
          >
            No piece matches the filter.
          </Alert>
        )}
        {!nothingYet && blocks.total !== 0 && arrangement.ready && (
          <PlanGrid
            lines={lines}
            total={total}
            blocks={blocks}
            columns={arrangement.columns}
            widths={arrangement.widths}
            listing={listing}
            chosen={chosen}
            inspected={chosenCode}
            active={place}
            setActive={setActive}
            offers={offers}
            routes={routeNumbers}
            actions={grid}
            onSeen={onSeen}
          />
        )}
      </Stack>
      {adding !== null && (
        <NewPiece
          series={adding === 'series'}
          close={() => {
            open(null)
          }}
          made={open}
        />
      )}
      {chosenCode !== null && adding === null && (
        <CodeInspector
          id={chosenCode}
          close={() => {
            open(null)
          }}
          focusDestination={editing}
        />
      )}
      {moving !== null && (
        <MoveDialog
          ids={moving}
          campaignId={campaign.id}
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
