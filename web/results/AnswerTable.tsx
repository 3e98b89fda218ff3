import { Box, Button } from '@mui/material'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { beforeOf, COUNTS, measureText, rowLabels } from '@flimbo/core/charts'
import { DIMENSIONS } from '@flimbo/core/dimensions'
import { rateWithin } from '@flimbo/core/formats'
import {
  intervalOf,
  isRanked,
  measured,
  MEASURES,
  RANKED_FROM,
  type AnswerRow,
  type Measure,
} from '@flimbo/core/results'
import { useMemo } from 'react'
import type { AnswerProps } from './AnswerSheet.tsx'

type Row = AnswerRow & { readonly id: string; readonly labels: readonly string[] }
const HEIGHT = 420
const OF_SITES: readonly Measure[] = ['arrivals', 'goals', 'value']
const isOfSites = (measure: Measure) => OF_SITES.includes(measure)

/** Everything an answer says, row by row, in any order; the key of a row narrows everything else to it. */
export function AnswerTable({ what, by, answer, currency, against, choose }: AnswerProps) {
  const rows = useMemo((): Row[] => {
    const labels = rowLabels(by, answer)
    return answer.rows.map((row, i) => ({
      ...row,
      id: JSON.stringify(row.keys),
      labels: labels.map((all) => all[i] ?? ''),
    }))
  }, [by, answer])
  const figure = (measure: Measure, before = false): GridColDef<Row> => ({
    field: before ? 'before' : measure,
    headerName: before ? `${MEASURES[measure].label}, ${against ?? ''}` : MEASURES[measure].label,
    type: 'number',
    width: before ? 190 : 130,
    valueGetter: (_value, row) => (before ? beforeOf(measure, row) : measured(measure, row)),
    valueFormatter: (value: number | null) => measureText(measure, value, currency),
  })
  // Where no site reports, its columns would only take room.
  const isNothing = (measure: Measure) => measured(measure, answer.total) === 0
  const isRate = MEASURES[what].form === 'share'
  const columns: GridColDef<Row>[] = [
    ...by.map((dimension, side): GridColDef<Row> => ({
      field: dimension,
      headerName: DIMENSIONS[dimension].label,
      flex: 1,
      minWidth: 160,
      // In the order of the keys where they have one, not of their names.
      valueGetter: (_value, row) => row.labels[side] ?? '',
      sortComparator: (_a, _b, a, b) =>
        rows.findIndex(({ id }) => id === a.id) - rows.findIndex(({ id }) => id === b.id),
      renderCell: ({ row }) => (
        <Button
          color="inherit"
          sx={{ font: 'inherit', justifyContent: 'flex-start', minWidth: 0, px: 0.5 }}
          onClick={() => {
            choose(row.keys)
          }}
        >
          {row.labels[side]}
        </Button>
      ),
    })),
    figure(what),
    ...(isRate
      ? [
          {
            field: 'interval',
            headerName: '95 % interval',
            width: 200,
            sortable: false,
            valueGetter: (_value: never, row: Row) => rateWithin(intervalOf(what, row)),
          },
        ]
      : []),
    ...(against === null ? [] : [figure(what, true)]),
    ...COUNTS.filter((each) => each !== what && !(isOfSites(each) && isNothing(each))).map((each) =>
      figure(each),
    ),
    ...(MEASURES[what].form === 'count'
      ? []
      : [
          {
            field: 'note',
            headerName: '',
            width: 180,
            sortable: false,
            valueGetter: (_value: never, row: Row) =>
              isRanked(what, row) ? '' : `fewer than ${String(RANKED_FROM)} scans`,
          },
        ]),
  ]
  return (
    <Box sx={{ height: HEIGHT }}>
      <DataGrid
        aria-label="The answer as a table"
        rows={rows}
        columns={columns}
        density="compact"
        disableRowSelectionOnClick
        initialState={{ pagination: { paginationModel: { pageSize: 50 } } }}
        pageSizeOptions={[25, 50, 100]}
        sx={{ border: 0 }}
      />
    </Box>
  )
}
