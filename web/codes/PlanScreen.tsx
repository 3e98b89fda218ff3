import AddIcon from '@mui/icons-material/Add'
import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { DataGrid, type GridPaginationModel, type GridSortModel } from '@mui/x-data-grid'
import { codesApi, type CODE_SORTS } from '@flimbo/core/codes'
import { useDeferredValue, useMemo, useRef, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { counted, Empty, Trouble, useKeys } from '../ui/index.ts'
import { useSession } from '../workspace/index.ts'
import { CodeInspector } from './CodeInspector.tsx'
import { planColumns } from './columns.tsx'
import { NewPiece } from './NewPiece.tsx'

type Sort = (typeof CODE_SORTS)[number]

/** What makes room for the inspector: it says these itself. */
const BESIDE_INSPECTOR = { medium: false, content: false, destination: false }

/** The plan: a row a printed piece, and the chosen one at the right. */
export function PlanScreen() {
  const campaign = useCampaign()
  const { door } = useSession()
  const [address, setAddress] = useSearchParams()
  const [paging, setPaging] = useState<GridPaginationModel>({ page: 0, pageSize: 50 })
  const [sorting, setSorting] = useState<GridSortModel>([])
  const [search, setSearch] = useState('')
  const [editing, setEditing] = useState(0)
  const searchField = useRef<HTMLInputElement>(null)
  const asked = useDeferredValue(search)
  const chosen = Number(address.get('code')) || null
  const adding = address.has('new')

  const [first] = sorting
  const codes = useAnswer(codesApi.list, {
    query: {
      campaignId: campaign.id, ...paging, search: asked || undefined,
      ...(first ? { sort: first.field as Sort, order: first.sort ?? 'asc' } : {}),
    },
  })
  const rows = useMemo(() => codes.data?.rows ?? [], [codes.data])
  const columns = useMemo(() => planColumns(door, campaign.zone), [door, campaign.zone])

  const choose = (id: number | null) => { setAddress(id === null ? {} : { code: String(id) }, { replace: true }) }
  const add = () => { setAddress({ new: '' }, { replace: true }) }
  const step = (by: number) => {
    const at = rows.findIndex((row) => row.id === chosen)
    const next = rows[at < 0 ? 0 : Math.min(rows.length - 1, Math.max(0, at + by))]
    if (next) choose(next.id)
  }
  useKeys({
    j: () => { step(1) },
    k: () => { step(-1) },
    e: () => { if (chosen !== null) setEditing((n) => n + 1) },
    n: add,
    '/': () => { searchField.current?.focus() },
  })

  const inspecting = chosen !== null || adding
  const nothingYet = codes.data?.total === 0 && asked === ''
  return (
    <Box sx={{ flex: 1, display: 'flex', minHeight: 0, height: 'calc(100vh - 102px)' }}>
      <Stack sx={{ flex: 1, minWidth: 0, p: 2, gap: 1.5 }}>
        <Stack direction="row" sx={{ gap: 2, alignItems: 'center' }}>
          <Typography variant="h1">Plan</Typography>
          <Typography color="textSecondary" sx={{ flex: 1 }}>{codes.data && counted(codes.data.total, 'piece')}{asked && ` with “${asked}”`}</Typography>
          <TextField size="small" inputRef={searchField} placeholder="Filter ( / )" value={search} onChange={(event) => { setSearch(event.target.value); setPaging({ ...paging, page: 0 }) }} slotProps={{ htmlInput: { 'aria-label': 'Filter the pieces' } }} />
          <Button variant="contained" startIcon={<AddIcon />} onClick={add}>Add a piece</Button>
        </Stack>
        {codes.isError && <Trouble error={codes.error} again={() => { void codes.refetch() }} />}
        {nothingYet ? (
          <Box sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
            <Empty
              title="Nothing is planned yet"
              text="A piece is one thing you print or send: a poster, a leaflet, a ticket. Name it, say how its visits are tagged, and where it leads; its short link and symbol are there at once."
              action={<Button variant="contained" startIcon={<AddIcon />} onClick={add}>Add the first piece</Button>}
            />
          </Box>
        ) : (
          <Box sx={{ flex: 1, minHeight: 0 }}>
            <DataGrid
              aria-label="Pieces"
              rows={rows}
              columns={columns}
              rowCount={codes.data?.total ?? 0}
              loading={codes.isFetching && !codes.data}
              rowHeight={42}
              columnHeaderHeight={40}
              paginationMode="server"
              sortingMode="server"
              filterMode="server"
              disableColumnFilter
              paginationModel={paging}
              onPaginationModelChange={setPaging}
              pageSizeOptions={[25, 50, 100]}
              sortModel={sorting}
              onSortModelChange={setSorting}
              rowSelectionModel={{ type: 'include', ids: new Set(chosen === null ? [] : [chosen]) }}
              onRowClick={({ id }) => { choose(Number(id)) }}
              onCellKeyDown={({ id }, event) => { if (event.key === 'Enter') choose(Number(id)) }}
              localeText={{ noRowsLabel: 'No piece matches the filter.' }}
              columnVisibilityModel={inspecting ? BESIDE_INSPECTOR : {}}
              sx={{ bgcolor: 'background.paper', '& .MuiDataGrid-row': { cursor: 'pointer' } }}
            />
          </Box>
        )}
      </Stack>
      {adding && <NewPiece close={() => { choose(null) }} made={choose} />}
      {chosen !== null && !adding && <CodeInspector id={chosen} close={() => { choose(null) }} focusDestination={editing} />}
    </Box>
  )
}
