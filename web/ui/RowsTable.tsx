import { Alert, Box, Button, MenuItem, Stack, TextField } from '@mui/material'
import { DataGrid, type GridColDef, type GridValidRowModel } from '@mui/x-data-grid'
import type { ReactNode } from 'react'

/** Which rows are shown: those that figures count, those that are kept apart, or both. */
export type Counted = 'counted' | 'apart' | 'both'

interface Props<R extends GridValidRowModel> {
  readonly name: string
  readonly columns: readonly GridColDef<R>[]
  readonly rows: readonly R[]
  readonly total: number
  readonly isLoading: boolean
  /** Said where there are none. */
  readonly none: string
  readonly counted: {
    readonly value: Counted
    readonly countedWord: string
    readonly change: (value: Counted) => void
  }
  readonly paging: {
    readonly value: { readonly page: number; readonly pageSize: number }
    readonly change: (value: { page: number; pageSize: number }) => void
  }
  readonly download: () => void
  /** What they are downloaded as; CSV where it is not said. */
  readonly format?: string
  /** Why it could not be downloaded, or read; null where it could. */
  readonly fault: string | null
  /** What stands beside the choice of rows. */
  readonly aside?: ReactNode
}

/** The rows behind figures: which of them, row by row, and as a file. */
export function RowsTable<R extends GridValidRowModel>(props: Props<R>) {
  const {
    name,
    columns,
    rows,
    total,
    isLoading,
    none,
    counted,
    paging,
    download,
    format = 'CSV',
    fault,
    aside,
  } = props
  const words: Readonly<Record<Counted, string>> = {
    counted: counted.countedWord,
    apart: 'Kept apart',
    both: 'Both',
  }
  return (
    <Stack spacing={1}>
      <Stack direction="row" sx={{ p: 1, gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <TextField
          select
          size="small"
          label="Rows"
          value={counted.value}
          onChange={({ target }) => {
            counted.change(target.value as Counted)
            paging.change({ ...paging.value, page: 0 })
          }}
          sx={{ minWidth: 150 }}
        >
          {Object.entries(words).map(([value, label]) => (
            <MenuItem key={value} value={value}>
              {label}
            </MenuItem>
          ))}
        </TextField>
        {aside}
        <Box sx={{ flex: 1 }} />
        <Button variant="outlined" onClick={download}>
          Download these rows as {format}
        </Button>
        {fault !== null && <Alert severity="error">{fault}</Alert>}
      </Stack>
      <Box sx={{ height: 420 }}>
        <DataGrid
          aria-label={name}
          rows={rows}
          columns={columns.map((each) => ({ ...each, sortable: false }))}
          rowCount={total}
          rowHeight={36}
          columnHeaderHeight={36}
          paginationMode="server"
          paginationModel={paging.value}
          onPaginationModelChange={paging.change}
          pageSizeOptions={[25, 100]}
          loading={isLoading}
          disableColumnMenu
          disableRowSelectionOnClick
          sx={{ border: 0 }}
          localeText={{ noRowsLabel: none }}
        />
      </Box>
    </Stack>
  )
}
