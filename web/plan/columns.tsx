import { planColumns, type PlanColumn } from '@flimbo/core/plan'
import type { OwnParameter } from '@flimbo/core/tagging'
import { day, number } from '@flimbo/core/formats'
import { STATE_SHAPES } from '../ui/index.ts'
import { mono, type GridColumn } from './gridColumn.tsx'
import { shownColumns, type LookOf } from './shownColumns.tsx'

export type { LookOf } from './shownColumns.tsx'
export type { GridColumn } from './gridColumn.tsx'

/** Widths, sorts and looks of the columns that can be edited. */
const LOOKS: Readonly<Record<string, Partial<GridColumn>>> = {
  key: { width: 90, sort: 'key' },
  name: { width: 172, sort: 'name' },
  route: { width: 150, sort: 'route', offers: 'route' },
  destination: { width: 128, render: (row) => mono(row.destination.replace(/^https?:\/\//, '')) },
  medium: { width: 78, sort: 'medium', offers: 'medium' },
  source: { width: 104, sort: 'source', offers: 'source' },
  content: { width: 92, sort: 'content', offers: 'content' },
  term: { width: 100, sort: 'term', offers: 'term' },
  sizeMm: { width: 74, sort: 'sizeMm' },
  viewingM: { width: 112, sort: 'viewingM' },
  place: { width: 160, sort: 'place' },
  coordinates: { width: 150 },
  printRun: {
    width: 90,
    sort: 'printRun',
    render: ({ printRun }) => (printRun === null ? '' : number(printRun)),
  },
  cost: { width: 90, sort: 'cost', render: ({ cost }) => (cost === null ? '' : number(cost)) },
  liveOn: { width: 108, sort: 'liveOn', render: ({ liveOn }) => (liveOn === null ? '' : day(liveOn)) },
  downOn: { width: 108, sort: 'downOn', render: ({ downOn }) => (downOn === null ? '' : day(downOn)) },
  reference: { width: 100, sort: 'reference' },
  slug: { width: 108, sort: 'slug', render: ({ slug }) => mono(slug) },
  level: { width: 66 },
  style: {
    width: 130,
    offers: 'style',
    render: ({ styleName }) => styleName || <span className="quiet">Plain</span>,
  },
  note: { width: 180 },
  state: {
    width: 84,
    sort: 'state',
    render: ({ state }) => (
      <>
        <span aria-hidden className={`${state}-mark`}>
          {STATE_SHAPES[state]}
        </span>{' '}
        {state}
      </>
    ),
  },
}

function editable(column: PlanColumn): GridColumn {
  return {
    id: column.id,
    title: column.title,
    width: 120,
    plan: column,
    sort: null,
    right: column.numeric,
    text: (row) => column.write(row),
    ...LOOKS[column.id],
  }
}

const ORDER = [
  'symbol',
  'name',
  'medium',
  'source',
  'content',
  'term',
  'extra',
  'campaign',
  'route',
  'destination',
  'finalAddress',
  'sizeMm',
  'viewingM',
  'modules',
  'moduleMm',
  'level',
  'style',
  'place',
  'coordinates',
  'printRun',
  'cost',
  'liveOn',
  'downOn',
  'reference',
  'key',
  'slug',
  'tags',
  'print',
  'channel',
  'check',
  'scans',
  'uniques',
  'lastScan',
  'state',
  'note',
] as const

/** Columns that stand in a plan nobody has arranged: together they fit 1280 pixels. */
export const USUAL_COLUMNS: readonly string[] = [
  'symbol',
  'name',
  'medium',
  'source',
  'content',
  'destination',
  'sizeMm',
  'slug',
  'tags',
  'print',
  'scans',
  'lastScan',
  'state',
]

/** Every column of a workspace's plan, in the order of the work. */
export function gridColumns(
  parameters: readonly OwnParameter[],
  zone: string,
  currency: string,
  lookOf: LookOf,
): GridColumn[] {
  const own = planColumns(parameters).filter(({ id }) => id !== 'campaign')
  const byId = new Map(own.map((column) => [column.id, editable(column)]))
  const others = shownColumns(zone, lookOf)
  return ORDER.flatMap((id): GridColumn[] => {
    if (id === 'extra') return own.filter((column) => column.id.startsWith('extra.')).map(editable)
    const column = byId.get(id) ?? others[id]
    return column ? [id === 'cost' ? { ...column, title: `Cost ${currency}` } : column] : []
  })
}
