import { Box, Link } from '@mui/material'
import { CONTENT_WORDS } from '@flimbo/core/contents'
import { number, quantity } from '@flimbo/core/formats'
import type { StaticCode } from '@flimbo/core/staticCodes'
import type { ReactNode } from 'react'
import { Link as RouterLink } from 'react-router'
import { PrintMark } from '../codes/index.ts'
import { SymbolPicture, useStyles } from '../symbol/index.ts'
import { MARK_PX, ROW_PX } from './GridRow.tsx'
import type { GridColumn, LookOf } from './columns.tsx'

interface Placed {
  /** Where it stands in the grid, px from the first row. */
  readonly top: number
  readonly width: number
}

/** What stands above the static codes of a plan. */
export function StaticHeading({
  top,
  width,
  columns,
  count,
}: Placed & { readonly columns: number; readonly count: number }) {
  return (
    <Box
      role="row"
      className="plan-row"
      sx={{ alignItems: 'center' }}
      style={{ width, transform: `translateY(${String(top)}px)` }}
    >
      <Box role="gridcell" aria-colspan={columns + 1} sx={{ px: 1.5, position: 'sticky', left: 0 }}>
        <Box component="span" sx={{ fontWeight: 650 }}>
          {quantity(count, 'static code')}
        </Box>{' '}
        <Box component="span" sx={{ color: 'text.secondary' }}>
          What they carry stands in the symbol itself: neither changed nor counted once it is printed.{' '}
          <Link component={RouterLink} to="../print?static=new" underline="always">
            New static code
          </Link>
        </Box>
      </Box>
    </Box>
  )
}

/** A static code in the plan, below the pieces: it opens where it is printed. */
export function StaticRow({
  code,
  top,
  width,
  columns,
  widths,
}: Placed & {
  readonly code: StaticCode
  readonly columns: readonly GridColumn[]
  readonly widths: readonly number[]
}) {
  const { lookOf } = useStyles()
  return (
    <div role="row" className="plan-row" style={{ width, transform: `translateY(${String(top)}px)` }}>
      <div
        role="gridcell"
        aria-label="Static code"
        style={{ width: MARK_PX, height: ROW_PX, flexShrink: 0 }}
      />
      {columns.map((column, i) => (
        <div
          key={column.id}
          role="gridcell"
          aria-readonly
          className={column.right ? 'plan-cell right' : 'plan-cell'}
          style={{ width: widths[i] }}
        >
          <span className="plan-text">{cellOf(column.id, code, lookOf)}</span>
        </div>
      ))}
    </div>
  )
}

/** What a static code has for a column of the plan; nothing where it has no such thing. */
function cellOf(column: string, code: StaticCode, lookOf: LookOf): ReactNode {
  switch (column) {
    case 'symbol':
      return (
        <SymbolPicture
          text={code.text}
          level={code.level}
          look={lookOf(code.styleId)}
          size={34}
          label={`Symbol of ${code.name}`}
        />
      )
    case 'name':
      return (
        <Link component={RouterLink} to={`../print?static=${String(code.id)}`} title={code.name}>
          {code.name}
        </Link>
      )
    case 'medium':
      return <span title={CONTENT_WORDS[code.content.kind]}>{CONTENT_WORDS[code.content.kind]}</span>
    case 'destination':
    case 'finalAddress':
      return (
        <span className="mono" title={code.text}>
          {code.text}
        </span>
      )
    case 'sizeMm':
      return number(code.sizeMm)
    case 'viewingM':
      return code.viewingM === null ? '' : number(code.viewingM)
    case 'printRun':
      return code.printRun === null ? '' : number(code.printRun)
    case 'style':
      return code.styleName || 'Plain'
    case 'print':
      return <PrintMark print={code.print} isWorded />
    case 'level':
      return code.level
    case 'place':
      return code.place
    case 'reference':
      return code.reference
    case 'note':
      return code.note
    case 'state':
      return 'static'
    default:
      return ''
  }
}
