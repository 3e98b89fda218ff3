import type { GridColDef } from '@mui/x-data-grid'
import { MenuItem, TextField } from '@mui/material'
import {
  ROW_FORMAT_NAMES,
  ROW_FORMATS,
  scansApi,
  type Of,
  type RowFormat,
  type Scan,
} from '@flimbo/core/scans'
import type { Filters } from '@flimbo/core/dimensions'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useFile } from '../jobs/index.ts'
import { cityAndCountry, language, moment, orUnknown } from '@flimbo/core/formats'
import { RowsTable, type Counted } from '../ui/index.ts'

const columns = (zone: string): GridColDef<Scan>[] => [
  {
    field: 'at',
    headerName: 'When',
    width: 160,
    valueFormatter: (value: number) => moment(value, zone),
  },
  { field: 'codeName', headerName: 'Piece', flex: 1, minWidth: 150 },
  {
    field: 'city',
    headerName: 'Where',
    flex: 1,
    minWidth: 150,
    valueGetter: (_value, row) => cityAndCountry(row),
  },
  { field: 'device', headerName: 'Device', width: 90 },
  {
    field: 'system',
    headerName: 'System',
    width: 110,
    valueGetter: (_value, row) => orUnknown(`${row.system} ${row.systemVersion}`.trim()),
  },
  { field: 'browser', headerName: 'Browser', width: 120, sortable: false, valueFormatter: orUnknown },
  { field: 'language', headerName: 'Language', width: 130, sortable: false, valueFormatter: language },
  { field: 'revision', headerName: 'Revision', type: 'number', width: 80 },
  {
    field: 'exit',
    headerName: 'Lane',
    width: 110,
    valueGetter: (_value, row) => [row.exit, row.variant].filter((part) => part !== '').join(' · '),
  },
  {
    field: 'outcome',
    headerName: 'Outcome',
    width: 100,
    valueGetter: (_value, row) => row.apart ?? (row.unique ? `${row.outcome}, unique` : row.outcome),
  },
]

/** The scans behind the figures, row by row, and as a file. */
export function Rows({
  of,
  filters,
  exit,
  from,
  to,
  zone,
}: {
  of: Of
  /** What the figures above are narrowed by. */
  filters: Filters
  /** Only scans that left that way; everything where it is not given. */
  exit: string | undefined
  from: string
  to: string
  zone: string
}) {
  const [counted, setCounted] = useState<Counted>('counted')
  const [paging, setPaging] = useState({ page: 0, pageSize: 25 })
  const filter = { ...of, exit, from, to, counted }
  const isNarrowed = Object.keys(filters).length > 0
  const [format, setFormat] = useState<RowFormat>('csv')
  const file = useFile(scansApi.makeFile)
  const scans = useAnswer(scansApi.list, {
    query: {
      ...filter,
      ...(isNarrowed ? { filters: JSON.stringify(filters) } : {}),
      ...paging,
      order: 'desc',
    },
  })
  return (
    <RowsTable
      name="Scans"
      columns={columns(zone)}
      rows={scans.data?.rows ?? []}
      total={scans.data?.total ?? 0}
      isLoading={!scans.data}
      none="No scan in these days."
      counted={{ value: counted, countedWord: 'Counted scans', change: setCounted }}
      paging={{ value: paging, change: setPaging }}
      format={ROW_FORMAT_NAMES[format]}
      aside={
        <TextField
          select
          size="small"
          label="File"
          value={format}
          sx={{ minWidth: 110 }}
          onChange={({ target }) => {
            setFormat(target.value as RowFormat)
          }}
        >
          {ROW_FORMATS.map((each) => (
            <MenuItem key={each} value={each}>
              {ROW_FORMAT_NAMES[each]}
            </MenuItem>
          ))}
        </TextField>
      }
      download={() => {
        void file.order({ body: { ...filter, format, ...(isNarrowed ? { filters } : {}) } })
      }}
      fault={file.fault}
    />
  )
}
