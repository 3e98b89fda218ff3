import { measureText } from '@flimbo/core/charts'
import { cityAndCountry, moment } from '@flimbo/core/formats'
import { goalsApi, type GoalEvent } from '@flimbo/core/goals'
import { DataGrid, type GridColDef, type GridPaginationModel } from '@mui/x-data-grid'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { Sheet, Trouble } from '../ui/index.ts'

/** All there ever was. */
export const ALL_DAYS = { from: '2000-01-01', to: '2199-12-31' }

/** What was reached, row by row, the latest first: of one goal, or of all. */
export function GoalEvents({
  goal,
  currency,
}: {
  goal: { id: number; name: string } | null
  currency: string
}) {
  const { id: campaignId, zone } = useCampaign()
  const [paging, setPaging] = useState<GridPaginationModel>({ page: 0, pageSize: 25 })
  const events = useAnswer(goalsApi.events, {
    query: { campaignId, ...ALL_DAYS, ...paging, order: 'desc', ...(goal ? { goalId: goal.id } : {}) },
  })
  const columns: GridColDef<GoalEvent>[] = [
    { field: 'at', headerName: 'When', width: 150, valueFormatter: (at: number) => moment(at, zone) },
    { field: 'goalName', headerName: 'Goal', flex: 1, minWidth: 130 },
    { field: 'codeName', headerName: 'Piece', flex: 1.2, minWidth: 140 },
    {
      field: 'value',
      headerName: 'Value',
      width: 90,
      type: 'number',
      valueFormatter: (value: number) => measureText('value', value, currency),
    },
    { field: 'order', headerName: 'Order', width: 110 },
    {
      field: 'city',
      headerName: 'City',
      width: 130,
      valueGetter: (_v, row) => (row.country === '' ? row.city : cityAndCountry(row)),
    },
    { field: 'device', headerName: 'Device', width: 90 },
    { field: 'apart', headerName: 'Kept apart', width: 100, valueGetter: (_v, row) => row.apart ?? '' },
  ]
  return (
    <Sheet title={goal ? `Reached: ${goal.name}` : 'What was reached'} pad={false}>
      {events.isError && <Trouble error={events.error} />}
      <DataGrid
        aria-label="What was reached"
        rows={events.data?.rows ?? []}
        rowCount={events.data?.total ?? 0}
        loading={events.isPending}
        columns={columns.map((column) => ({ ...column, sortable: false }))}
        density="compact"
        disableRowSelectionOnClick
        paginationMode="server"
        paginationModel={paging}
        onPaginationModelChange={setPaging}
        pageSizeOptions={[25, 100]}
        sx={{ border: 0 }}
        localeText={{ noRowsLabel: 'Nothing was reached yet' }}
      />
    </Sheet>
  )
}
