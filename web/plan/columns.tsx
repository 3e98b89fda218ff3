import { contentOf, type Code, type CODE_SORTS } from '@flimbo/core/codes'
import { planColumns, type PlanColumn } from '@flimbo/core/plan'
import { densities, MODULE_MM_MIN, sizeWarning } from '@flimbo/core/symbol'
import type { OwnParameter } from '@flimbo/core/tagging'
import type { ReactNode } from 'react'
import { isFailure, type Verdict } from '@flimbo/core/checks'
import { SymbolPicture } from '../symbol/index.ts'
import { age, day, moment, number } from '@flimbo/core/formats'
import { STATE_SHAPES, useNow } from '../ui/index.ts'

/** A column as the grid shows it. */
export interface GridColumn {
  readonly id: string
  readonly title: string
  readonly width: number
  /** How its cells are edited; null where they are only shown. */
  readonly plan: PlanColumn | null
  readonly sort: (typeof CODE_SORTS)[number] | null
  readonly right?: boolean
  /** Values people choose from while they type. */
  readonly offers?: 'medium' | 'source' | 'content' | 'term' | 'route'
  /** What is read out and copied. */
  readonly text: (row: Code) => string
  readonly render?: (row: Code) => ReactNode
}

const mono = (value: string) => <span className="mono">{value}</span>

/** How long ago, with the moment itself where the pointer rests. */
function Ago({ at, zone }: { at: number | null; zone: string }) {
  const now = useNow()
  return at === null ? (
    'never'
  ) : (
    <time dateTime={new Date(at).toISOString()} title={`${moment(at, zone)} (${zone})`}>
      {age(at, Math.max(now, at))}
    </time>
  )
}

/** Widths, sorts and looks of the columns that can be edited. */
const LOOKS: Readonly<Record<string, Partial<GridColumn>>> = {
  key: { width: 90, sort: 'key' },
  name: { width: 190, sort: 'name' },
  route: { width: 150, sort: 'route', offers: 'route' },
  destination: { width: 174, render: (row) => mono(row.destination.replace(/^https?:\/\//, '')) },
  medium: { width: 78, sort: 'medium', offers: 'medium' },
  source: { width: 112, sort: 'source', offers: 'source' },
  content: { width: 104, sort: 'content', offers: 'content' },
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

const findingsText = ({ findings }: Code) => findings.map(({ sentence }) => sentence).join(' ')
const densityOf = (row: Code) => densities(row.finalAddress, row.shortLink, row.level, row.sizeMm)
const sizeFault = (row: Code) => sizeWarning(contentOf(row), row.level, row.sizeMm, row.viewingM)

/** What is only shown: the symbol, what the linter, the channel table and the checks say, and what came of the piece. */
function verdictMark(verdict: Verdict): string {
  if (verdict === 'fine') return '✓ arrives'
  return isFailure(verdict) ? '▲ fails' : '▲ tags lost'
}

function shown(zone: string): Readonly<Record<string, GridColumn>> {
  return {
    symbol: {
      id: 'symbol',
      title: 'Symbol',
      width: 68,
      plan: null,
      sort: null,
      text: (row) => `Symbol of ${row.name}`,
      render: (row) => (
        <SymbolPicture
          origin={row.origin}
          slug={row.slug}
          level={row.level}
          size={34}
          label={`Symbol of ${row.name}`}
        />
      ),
    },
    campaign: {
      id: 'campaign',
      title: 'Campaign',
      width: 110,
      plan: null,
      sort: null,
      text: (row) => row.campaign,
    },
    finalAddress: {
      id: 'finalAddress',
      title: 'Final address',
      width: 320,
      plan: null,
      sort: null,
      text: (row) => row.finalAddress,
      render: (row) => mono(row.finalAddress),
    },
    modules: {
      id: 'modules',
      title: 'Modules',
      width: 96,
      plan: null,
      sort: null,
      right: true,
      text: (row) => {
        const { long, mixedCase, upperCase } = densityOf(row)
        return [long, mixedCase, upperCase].map((each) => (each ? String(each.side) : 'none')).join(' / ')
      },
      render: (row) => {
        const { long, mixedCase, upperCase } = densityOf(row)
        return (
          <span title="Modules a side: the long address / the short link / the short link in upper case, as printed">
            {long?.side ?? '–'} / {mixedCase?.side ?? '–'} / <strong>{upperCase?.side ?? '–'}</strong>
          </span>
        )
      },
    },
    moduleMm: {
      id: 'moduleMm',
      title: 'Module mm',
      width: 84,
      plan: null,
      sort: null,
      right: true,
      text: (row) => (densityOf(row).upperCase?.moduleMm ?? 0).toFixed(2),
      render: (row) => {
        const { upperCase } = densityOf(row)
        const fault = sizeFault(row)
        const figure = (upperCase?.moduleMm ?? 0).toFixed(2)
        return fault === null ? (
          figure
        ) : (
          <span className="alert" title={fault}>
            {(upperCase?.moduleMm ?? 0) < MODULE_MM_MIN ? '▲' : '△'} {figure}
          </span>
        )
      },
    },
    channel: {
      id: 'channel',
      title: 'Channel',
      width: 116,
      plan: null,
      sort: null,
      text: ({ channel }) => channel || 'unassigned',
      render: ({ channel }) => channel || <span className="alert">unassigned</span>,
    },
    tags: {
      id: 'tags',
      title: 'Tags',
      width: 58,
      plan: null,
      sort: null,
      text: (row) => findingsText(row) || 'nothing found',
      render: (row) => {
        const faults = [
          ...row.findings.map(({ sentence }) => sentence),
          ...(sizeFault(row) === null ? [] : [sizeFault(row) ?? '']),
        ]
        return faults.length === 0 ? (
          <span className="quiet">✓</span>
        ) : (
          <span className="alert" title={faults.join('\n')}>
            ▲ {faults.length}
          </span>
        )
      },
    },
    check: {
      id: 'check',
      title: 'Destination check',
      width: 132,
      plan: null,
      sort: null,
      text: ({ check }) => check?.sentence ?? 'not checked yet',
      render: ({ check }) =>
        check === null ? (
          <span className="quiet">not yet</span>
        ) : (
          <span className={check.verdict === 'fine' ? undefined : 'alert'} title={check.sentence}>
            {verdictMark(check.verdict)}
          </span>
        ),
    },
    scans: {
      id: 'scans',
      title: 'Scans',
      width: 62,
      plan: null,
      sort: 'scans',
      right: true,
      text: (row) => String(row.scans.scans),
      render: (row) => number(row.scans.scans),
    },
    uniques: {
      id: 'uniques',
      title: 'Unique',
      width: 70,
      plan: null,
      sort: null,
      right: true,
      text: (row) => String(row.scans.uniques),
      render: (row) => number(row.scans.uniques),
    },
    lastScan: {
      id: 'lastScan',
      title: 'Last scan',
      width: 96,
      plan: null,
      sort: 'lastScan',
      text: (row) => (row.scans.lastAt === null ? '' : new Date(row.scans.lastAt).toISOString()),
      render: (row) => <Ago at={row.scans.lastAt} zone={zone} />,
    },
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
  'scans',
  'lastScan',
  'state',
]

/** Every column of a workspace's plan, in the order of the work. */
export function gridColumns(
  parameters: readonly OwnParameter[],
  zone: string,
  currency: string,
): GridColumn[] {
  const own = planColumns(parameters).filter(({ id }) => id !== 'campaign')
  const byId = new Map(own.map((column) => [column.id, editable(column)]))
  const others = shown(zone)
  return ORDER.flatMap((id): GridColumn[] => {
    if (id === 'extra') return own.filter((column) => column.id.startsWith('extra.')).map(editable)
    const column = byId.get(id) ?? others[id]
    return column ? [id === 'cost' ? { ...column, title: `Cost ${currency}` } : column] : []
  })
}
