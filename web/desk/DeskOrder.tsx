import { MenuItem, TextField } from '@mui/material'

const SORTS = {
  lastScan: 'last scan first',
  scans: 'most scans first',
  name: 'by name',
  createdAt: 'newest first',
} as const

export interface DeskLook {
  readonly sort: keyof typeof SORTS
  readonly shown: 'current' | 'archived'
}

/** Which campaigns the desk shows, and in which order. */
export function DeskOrder({ sort, shown, choose }: DeskLook & { readonly choose: (look: DeskLook) => void }) {
  return (
    <>
      <TextField
        select
        size="small"
        value={shown}
        onChange={(event) => {
          choose({ sort, shown: event.target.value as DeskLook['shown'] })
        }}
        slotProps={{ htmlInput: { 'aria-label': 'Which campaigns' } }}
        sx={{ minWidth: 120 }}
      >
        <MenuItem value="current">current</MenuItem>
        <MenuItem value="archived">archived</MenuItem>
      </TextField>
      <TextField
        select
        size="small"
        label="Order"
        value={sort}
        onChange={(event) => {
          choose({ sort: event.target.value as DeskLook['sort'], shown })
        }}
        sx={{ minWidth: 180 }}
      >
        {Object.entries(SORTS).map(([value, label]) => (
          <MenuItem key={value} value={value}>
            {label}
          </MenuItem>
        ))}
      </TextField>
    </>
  )
}
