import ViewColumnIcon from '@mui/icons-material/ViewColumnOutlined'
import { Box, Button, Checkbox, FormControlLabel, MenuItem, Popover, Stack, TextField } from '@mui/material'
import { useState } from 'react'
import { USUAL_COLUMNS, type GridColumn } from './columns.tsx'
import type { Arrangement } from './useArrangement.ts'
import type { Listing } from '../codes/index.ts'
import { ToolButton } from './ToolButton.tsx'

/** Which columns stand in the plan, and in which order and groups its pieces do. */
export function ArrangeMenu({ all, arrangement }: { all: readonly GridColumn[]; arrangement: Arrangement }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const { visible, order, choose, setOrder } = arrangement
  const sorts = all.filter(({ sort }) => sort !== null)
  return (
    <>
      <ToolButton
        label="Columns and order"
        icon={<ViewColumnIcon fontSize="small" />}
        popup="dialog"
        open={setAnchor}
      />
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => {
          setAnchor(null)
        }}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { 'aria-label': 'Columns and order', role: 'dialog' } }}
      >
        <Stack spacing={2} sx={{ p: 2, width: 460 }}>
          <Stack direction="row" spacing={1}>
            <TextField
              select
              size="small"
              fullWidth
              label="Sorted by"
              value={order.sort}
              onChange={(event) => {
                setOrder({ ...order, sort: event.target.value as Listing['sort'] })
              }}
            >
              <MenuItem value="createdAt">Date added</MenuItem>
              {sorts.map(({ id, title, sort }) => (
                <MenuItem key={id} value={sort ?? ''}>
                  {title}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              select
              size="small"
              label="Direction"
              value={order.order}
              onChange={(event) => {
                setOrder({ ...order, order: event.target.value as Listing['order'] })
              }}
              sx={{ minWidth: 120 }}
            >
              <MenuItem value="asc">Ascending</MenuItem>
              <MenuItem value="desc">Descending</MenuItem>
            </TextField>
            <TextField
              select
              size="small"
              label="Grouped by"
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              value={order.group}
              onChange={(event) => {
                setOrder({ ...order, group: event.target.value as Listing['group'] })
              }}
              sx={{ minWidth: 120 }}
            >
              <MenuItem value="">nothing</MenuItem>
              <MenuItem value="medium">medium</MenuItem>
              <MenuItem value="route">route</MenuItem>
            </TextField>
          </Stack>
          <Box
            role="group"
            aria-label="Columns"
            sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', maxHeight: 360, overflowY: 'auto' }}
          >
            {all.map(({ id, title }) => (
              <FormControlLabel
                key={id}
                label={title}
                slotProps={{ typography: { variant: 'body2' } }}
                control={
                  <Checkbox
                    size="small"
                    sx={{ py: 0.5 }}
                    checked={visible.includes(id)}
                    disabled={id === 'name'}
                    onChange={(_event, on) => {
                      choose(
                        all
                          .map((each) => each.id)
                          .filter((each) => (each === id ? on : visible.includes(each))),
                      )
                    }}
                  />
                }
              />
            ))}
          </Box>
          <Button
            color="inherit"
            onClick={() => {
              choose(USUAL_COLUMNS)
            }}
            sx={{ alignSelf: 'flex-start' }}
          >
            Restore default columns
          </Button>
        </Stack>
      </Popover>
    </>
  )
}
