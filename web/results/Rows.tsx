import { Alert, Box, Button, MenuItem, Stack, TextField } from '@mui/material'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { scansApi, type Scan, type Scope } from '@flimbo/core/scans'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useFile } from '../jobs/index.ts'
import { moment } from '@flimbo/core/formats'
import { country, language, orUnknown } from '../ui/index.ts'

const COUNTED = { counted: 'Counted scans', apart: 'Kept apart', both: 'Both' } as const
type Counted = keyof typeof COUNTED

const columns = (zone: string): GridColDef<Scan>[] => [
  {
    field: 'at',
    headerName: 'When',
    width: 160,
    sortable: false,
    valueFormatter: (value: number) => moment(value, zone),
  },
  { field: 'codeName', headerName: 'Piece', flex: 1, minWidth: 150, sortable: false },
  {
    field: 'city',
    headerName: 'Where',
    flex: 1,
    minWidth: 150,
    sortable: false,
    valueGetter: (_value, row) => [row.city, country(row.country)].filter(Boolean).join(', '),
  },
  { field: 'device', headerName: 'Device', width: 90, sortable: false },
  {
    field: 'system',
    headerName: 'System',
    width: 110,
    sortable: false,
    valueGetter: (_value, row) => orUnknown(`${row.system} ${row.systemVersion}`.trim()),
  },
  { field: 'browser', headerName: 'Browser', width: 120, sortable: false, valueFormatter: orUnknown },
  { field: 'language', headerName: 'Language', width: 130, sortable: false, valueFormatter: language },
  { field: 'revision', headerName: 'Revision', type: 'number', width: 80, sortable: false },
  {
    field: 'exit',
    headerName: 'Lane',
    width: 110,
    sortable: false,
    valueGetter: (_value, row) => [row.exit, row.variant].filter((part) => part !== '').join(' · '),
  },
  {
    field: 'outcome',
    headerName: 'Outcome',
    width: 100,
    sortable: false,
    valueGetter: (_value, row) => row.apart ?? (row.unique ? `${row.outcome}, unique` : row.outcome),
  },
]

/** The scans behind the figures, row by row, and as a file. */
export function Rows({
  scope,
  exit,
  from,
  to,
  zone,
}: {
  scope: Scope
  exit: string | undefined
  from: string
  to: string
  zone: string
}) {
  const [counted, setCounted] = useState<Counted>('counted')
  const [paging, setPaging] = useState({ page: 0, pageSize: 25 })
  const filter = { ...scope, exit, from, to, counted }
  const file = useFile(scansApi.makeFile)
  const scans = useAnswer(scansApi.list, { query: { ...filter, ...paging, order: 'desc' } })
  return (
    <Stack spacing={1}>
      <Stack direction="row" sx={{ p: 1, gap: 1, alignItems: 'center' }}>
        <TextField
          select
          size="small"
          label="Rows"
          value={counted}
          onChange={({ target }) => {
            setCounted(target.value as Counted)
            setPaging({ ...paging, page: 0 })
          }}
          sx={{ minWidth: 150 }}
        >
          {Object.entries(COUNTED).map(([value, label]) => (
            <MenuItem key={value} value={value}>
              {label}
            </MenuItem>
          ))}
        </TextField>
        <Box sx={{ flex: 1 }} />
        <Button
          variant="outlined"
          onClick={() => {
            void file.order({ body: filter })
          }}
        >
          Download these rows as CSV
        </Button>
        {file.fault !== null && <Alert severity="error">{file.fault}</Alert>}
      </Stack>
      <Box sx={{ height: 420 }}>
        <DataGrid
          aria-label="Scans"
          rows={scans.data?.rows ?? []}
          columns={columns(zone)}
          rowCount={scans.data?.total ?? 0}
          rowHeight={36}
          columnHeaderHeight={36}
          paginationMode="server"
          paginationModel={paging}
          onPaginationModelChange={setPaging}
          pageSizeOptions={[25, 100]}
          loading={!scans.data}
          disableColumnMenu
          disableRowSelectionOnClick
          sx={{ border: 0 }}
          localeText={{ noRowsLabel: 'No scan in these days.' }}
        />
      </Box>
    </Stack>
  )
}
