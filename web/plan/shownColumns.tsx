import { isFailure, type Verdict } from '@flimbo/core/checks'
import { contentOf, type Code } from '@flimbo/core/codes'
import { age, moment, number } from '@flimbo/core/formats'
import { densities, MODULE_MM_MIN, sizeWarning, type Look } from '@flimbo/core/symbol'
import { PrintMark, printWords } from '../codes/index.ts'
import { SymbolPicture } from '../symbol/index.ts'
import { useNow } from '../ui/index.ts'
import { mono, type GridColumn } from './gridColumn.tsx'

type Columns = Readonly<Record<string, GridColumn>>

const findingsText = ({ findings }: Code) => findings.map(({ sentence }) => sentence).join(' ')
const densityOf = (row: Code) => densities(row.finalAddress, row.shortLink, row.level, row.sizeMm)
const sizeFault = (row: Code) => sizeWarning(contentOf(row), row.level, row.sizeMm, row.viewingM)

/** The look of a house style; the plain one for none. */
export type LookOf = (styleId: number | null) => Look

/** What is printed of a piece, and where a scan of it ends. */
const printed = (lookOf: LookOf): Columns => ({
  symbol: {
    id: 'symbol',
    title: 'Symbol',
    width: 68,
    plan: null,
    sort: null,
    text: (row) => `Symbol of ${row.name}`,
    render: (row) => (
      <SymbolPicture
        text={contentOf(row)}
        level={row.level}
        look={lookOf(row.styleId)}
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
})

function verdictMark(verdict: Verdict): string {
  if (verdict === 'fine') return '✓ arrives'
  return isFailure(verdict) ? '▲ fails' : '▲ tags lost'
}

/** What the channel table, the linter and the checks say of it. */
const JUDGED: Columns = {
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
  print: {
    id: 'print',
    title: 'Print',
    width: 94,
    plan: null,
    sort: null,
    text: ({ print }) => `${printWords(print.state)}. ${print.sentence}`,
    render: ({ print }) => <PrintMark print={print} isWorded />,
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
}

/** What came of it. */
function scanned(zone: string): Columns {
  return {
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
      width: 88,
      plan: null,
      sort: 'lastScan',
      text: (row) => (row.scans.lastAt === null ? '' : new Date(row.scans.lastAt).toISOString()),
      render: (row) => <Ago at={row.scans.lastAt} zone={zone} />,
    },
  }
}

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

/** The columns that are only shown, by their ids; `zone` is the campaign’s. */
export function shownColumns(zone: string, lookOf: LookOf): Columns {
  return { ...printed(lookOf), ...JUDGED, ...scanned(zone) }
}
