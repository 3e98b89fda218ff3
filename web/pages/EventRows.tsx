import { Box, Button, Chip } from '@mui/material'
import type { GridColDef } from '@mui/x-data-grid'
import { cityAndCountry, language, moment } from '@flimbo/core/formats'
import { pageResultsApi, type EventFilter, type PageEventRow } from '@flimbo/core/pages'
import { useEffect, useRef, useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useFile } from '../jobs/index.ts'
import { RowsTable, type Counted } from '../ui/index.ts'
import { eventText } from './partResults.ts'

/** One figure whose rows are shown: what it counts, in words and as a filter. */
export interface EventFigure {
  readonly words: string
  readonly filter: Pick<EventFilter, 'kind' | 'part' | 'item' | 'count' | 'codeId'>
}

/** Which rows are shown: those of one figure, all, or none. */
export type ShownRows = EventFigure | 'all' | null

interface Props {
  /** Whose events: of a campaign, a route, a code or a page, in days of the campaign’s zone. */
  readonly scope: Omit<EventFilter, 'counted'>
  readonly zone: string
  readonly shown: ShownRows
  readonly show: (rows: ShownRows) => void
}

const columns = (zone: string, isOnePage: boolean): GridColDef<PageEventRow>[] => [
  {
    field: 'at',
    headerName: 'When',
    width: 150,
    valueFormatter: (value: number) => moment(value, zone),
  },
  { field: 'codeName', headerName: 'Piece', flex: 1, minWidth: 120 },
  ...(isOnePage ? [] : [{ field: 'pageName', headerName: 'Page', flex: 1, minWidth: 120 }]),
  { field: 'partName', headerName: 'Part', flex: 1, minWidth: 120 },
  { field: 'kind', headerName: 'What', width: 150, valueGetter: (_value, row) => eventText(row) },
  {
    field: 'city',
    headerName: 'Where',
    flex: 1,
    minWidth: 120,
    valueGetter: (_value, row) => cityAndCountry(row),
  },
  { field: 'device', headerName: 'Device', width: 90 },
  { field: 'language', headerName: 'Language', width: 110, valueFormatter: language },
  { field: 'revision', headerName: 'Revision', type: 'number', width: 80 },
  { field: 'scanId', headerName: 'Scan', type: 'number', width: 90 },
  { field: 'apart', headerName: 'Kept apart as', width: 110, valueFormatter: (value) => value ?? '' },
]

/** The rows that figures of what happened on pages are counted from, when they are asked for. */
export function EventRows({ shown, show, ...props }: Props) {
  const rows = useRef<HTMLDivElement>(null)
  useEffect(() => {
    // Whoever chose a figure goes on from its rows.
    if (shown !== null && shown !== 'all') rows.current?.focus()
  }, [shown])
  return (
    <Box ref={rows} tabIndex={-1} role="region" aria-label="The rows behind it" sx={{ outline: 'none' }}>
      <Button
        aria-expanded={shown !== null}
        onClick={() => {
          show(shown === null ? 'all' : null)
        }}
        sx={{ m: 1 }}
      >
        {shown === null ? 'Show the rows' : 'Hide the rows'}
      </Button>
      {shown !== null && (
        <EventTable
          {...props}
          key={JSON.stringify([props.scope, shown])}
          figure={shown === 'all' ? null : shown}
          all={() => {
            show('all')
          }}
        />
      )}
    </Box>
  )
}

interface TableProps extends Pick<Props, 'scope' | 'zone'> {
  readonly figure: EventFigure | null
  readonly all: () => void
}

/** What happened on pages, row by row, and as a file. */
function EventTable({ scope, zone, figure, all }: TableProps) {
  const [counted, setCounted] = useState<Counted>('counted')
  const [paging, setPaging] = useState({ page: 0, pageSize: 25 })
  const owner = figure?.filter.codeId === undefined ? {} : { campaignId: undefined, routeId: undefined }
  const filter = { ...scope, ...owner, ...figure?.filter, counted }
  const file = useFile(pageResultsApi.makeFile)
  const rows = useAnswer(pageResultsApi.rows, { query: { ...filter, ...paging, order: 'desc' } })
  return (
    <RowsTable
      name="What happened on pages"
      columns={columns(zone, scope.pageId !== undefined)}
      rows={rows.data?.rows ?? []}
      total={rows.data?.total ?? 0}
      isLoading={!rows.data && !rows.isError}
      none="Nothing happened in these days, or its rows are folded into sums."
      counted={{ value: counted, countedWord: 'Counted', change: setCounted }}
      paging={{ value: paging, change: setPaging }}
      download={() => {
        void file.order({ body: filter })
      }}
      fault={file.fault ?? (rows.isError ? 'The rows could not be read. Try again.' : null)}
      aside={figure && <Chip label={`Only: ${figure.words}`} onDelete={all} />}
    />
  )
}
