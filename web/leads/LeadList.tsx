import { Chip, Stack } from '@mui/material'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { cityAndCountry, moment } from '@flimbo/core/formats'
import type { LeadSummary } from '@flimbo/core/leads'
import { useLeadStates } from './useLeadStates.ts'

interface Props {
  readonly rows: readonly LeadSummary[]
  readonly total: number
  readonly zone: string
  /** Whether they are of all campaigns. */
  readonly isOfAll: boolean
  readonly isLoading: boolean
  readonly chosen: number | undefined
  readonly choose: (id: number) => void
  readonly selected: ReadonlySet<number>
  readonly select: (ids: ReadonlySet<number>) => void
  readonly paging: {
    readonly page: number
    readonly pageSize: number
    readonly change: (page: number) => void
  }
}

const columns = (
  zone: string,
  nameOf: (state: string) => string,
  isOfAll: boolean,
): GridColDef<LeadSummary>[] => [
  {
    field: 'title',
    headerName: 'Who',
    flex: 1.2,
    minWidth: 150,
    valueGetter: (value: string, { id }) => value || `Lead ${String(id)}`,
  },
  {
    field: 'state',
    headerName: 'State',
    width: 110,
    valueFormatter: (value: string) => nameOf(value),
  },
  { field: 'at', headerName: 'When', width: 150, valueFormatter: (value: number) => moment(value, zone) },
  ...(isOfAll ? [{ field: 'campaignName', headerName: 'Campaign', flex: 1, minWidth: 130 }] : []),
  { field: 'codeName', headerName: 'Piece', flex: 1, minWidth: 130 },
  { field: 'pageName', headerName: 'Page', flex: 0.8, minWidth: 110 },
  {
    field: 'city',
    headerName: 'Where',
    flex: 0.8,
    minWidth: 110,
    valueGetter: (_value, row) => (row.country === '' ? row.city : cityAndCountry(row)),
  },
  {
    field: 'tags',
    headerName: 'Tags',
    width: 140,
    renderCell: ({ row }) => (
      <Stack direction="row" sx={{ gap: 0.5, alignItems: 'center', height: '100%' }}>
        {row.tags.map((tag) => (
          <Chip key={tag} size="small" label={tag} />
        ))}
      </Stack>
    ),
  },
]

/** The inbox: a row a lead, chosen by Enter or a click, selected by the space bar. */
export function LeadList(props: Props) {
  const { rows, total, zone, isOfAll, isLoading, chosen, choose, selected, select, paging } = props
  const { nameOf } = useLeadStates()
  return (
    <DataGrid
      aria-label="Leads"
      rows={rows}
      columns={columns(zone, nameOf, isOfAll).map((each) => ({ ...each, sortable: false }))}
      rowCount={total}
      rowHeight={40}
      columnHeaderHeight={36}
      autoHeight
      checkboxSelection
      disableRowSelectionOnClick
      disableColumnMenu
      loading={isLoading}
      rowSelectionModel={{ type: 'include', ids: new Set(selected) }}
      onRowSelectionModelChange={({ type, ids }) => {
        // All of what is shown: what is on other pages is selected there.
        select(new Set(type === 'include' ? [...ids].map(Number) : rows.map(({ id }) => id)))
      }}
      onRowClick={({ row }) => {
        choose((row as LeadSummary).id)
      }}
      onCellKeyDown={({ row, field }, event) => {
        if (event.key !== 'Enter' || field === '__check__') return
        event.preventDefault()
        choose((row as LeadSummary).id)
      }}
      getRowClassName={({ row }) => (row.id === chosen ? 'chosen' : '')}
      paginationMode="server"
      paginationModel={{ page: paging.page, pageSize: paging.pageSize }}
      onPaginationModelChange={({ page }) => {
        paging.change(page)
      }}
      pageSizeOptions={[paging.pageSize]}
      localeText={{ noRowsLabel: 'No lead is like that.' }}
      sx={{
        bgcolor: 'background.paper',
        '& .MuiDataGrid-row': { cursor: 'pointer' },
        '& .chosen': { bgcolor: 'action.selected' },
      }}
    />
  )
}
