import { Typography } from '@mui/material'
import type { GridColDef } from '@mui/x-data-grid'
import type { Code } from '@flimbo/core/codes'
import { SymbolPicture } from '../symbol/index.ts'
import { number, StateMark, When } from '../ui/index.ts'

const mono = (value: string) => <Typography variant="mono" noWrap>{value}</Typography>

/** The columns of the plan, in the order of the work. */
export function planColumns(door: string, zone: string): GridColDef<Code>[] {
  return [
    {
      field: 'symbol', headerName: '', width: 52, sortable: false, disableColumnMenu: true, display: 'flex',
      renderCell: ({ row }) => <SymbolPicture door={door} slug={row.slug} level={row.level} size={34} label={`Symbol of ${row.name}`} />,
    },
    { field: 'name', headerName: 'Piece', flex: 1.4, minWidth: 170 },
    { field: 'medium', headerName: 'Medium', width: 90 },
    { field: 'source', headerName: 'Source', width: 130 },
    { field: 'content', headerName: 'Content', width: 100, sortable: false },
    { field: 'slug', headerName: 'Short link', width: 105, renderCell: ({ row }) => mono(row.slug), display: 'flex' },
    { field: 'destination', headerName: 'Leads to', flex: 1.3, minWidth: 150, sortable: false, display: 'flex', renderCell: ({ row }) => mono(row.destination.replace(/^https?:\/\//, '')) },
    { field: 'scans', headerName: 'Scans', type: 'number', width: 84, valueGetter: (_value, row) => row.scans.scans, valueFormatter: (value: number) => number(value) },
    { field: 'lastScan', headerName: 'Last scan', width: 116, valueGetter: (_value, row) => row.scans.lastAt, renderCell: ({ row }) => <When at={row.scans.lastAt} zone={zone} /> },
    { field: 'state', headerName: 'State', width: 92, sortable: false, renderCell: ({ row }) => <StateMark state={row.state} /> },
  ]
}
