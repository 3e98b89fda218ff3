import type { Code } from '@flimbo/core/codes'
import { quantity } from '@flimbo/core/formats'
import { planApi } from '@flimbo/core/plan'
import { fixesOf, fixSet } from '@flimbo/core/tagging'
import { call, upload } from '../api/index.ts'
import { readBlock, readCell, textOfBlock } from './cells.ts'
import { blockText } from './clipboard.ts'
import type { GridColumn } from './columns.tsx'
import { columnsIn, refuse, report, run, type Latest } from './gridParts.ts'
import { pasteShape, type Range } from './range.ts'

export interface CellActions {
  /** Saves one cell. */
  readonly keep: (row: Code, column: GridColumn, text: string) => Promise<unknown>
  readonly clear: (range: Range) => void
  readonly fillDown: (range: Range) => void
  readonly paste: (block: string[][], range: Range) => void
  /** Text of a block that is not all on the screen. */
  readonly copyFar: (range: Range) => void
  /** Writes what the linter proposes for a piece. */
  readonly fix: (row: Code) => void
  readonly copyAddress: (row: Code) => void
}

/** What can be done to cells, and to the pieces they belong to. */
export function cellActions(latest: Latest): CellActions {
  return {
    keep(row, column, text) {
      const reading = readCell(row, column, text, latest.current.named)
      return reading.ok && reading.set
        ? latest.current.edits.edit({ changes: [{ id: row.id, set: reading.set }] })
        : Promise.resolve()
    },
    clear: (range) => {
      run(latest, () =>
        write(
          latest,
          range,
          columnsIn(latest, range).filter(({ plan }) => plan !== null),
          () => '',
        ),
      )
    },
    fillDown(range) {
      if (range.top === range.bottom) {
        refuse(latest, 'Choose the cell to repeat and those below it first (Shift and the arrow keys).')
        return
      }
      const columns = columnsIn(latest, range)
      run(latest, () =>
        write(latest, range, columns, (_i, j, rows) => {
          const [first] = rows
          const column = columns[j]
          return first && column ? column.text(first) : null
        }),
      )
    },
    paste(block, over) {
      const { columns, total } = latest.current
      const width = Math.max(...block.map((row) => row.length))
      const shape = pasteShape({ rows: block.length, columns: width }, over)
      const inside = Math.min(shape.rows, total - over.top)
      const range = {
        top: over.top,
        bottom: over.top + inside - 1,
        left: over.left,
        right: Math.min(columns.length - 1, over.left + shape.columns - 1),
      }
      const pasted = columnsIn(latest, range)
      run(latest, async () => {
        await write(latest, range, pasted, (i, j) => block[i % block.length]?.[j % width] ?? null)
        const beyond = block.slice(inside)
        if (shape.rows === block.length && beyond.length > 0) await importRows(latest, beyond, pasted)
      })
    },
    copyFar(range) {
      run(latest, async () => {
        const rows = await latest.current.blocks.between(range.top, range.bottom)
        await navigator.clipboard.writeText(textOfBlock(rows, columnsIn(latest, range)))
        report(latest, `${quantity(rows.length, 'row')} copied.`)
      })
    },
    fix(row) {
      const { campaign: _campaign, ...fixes } = fixesOf(row.findings)
      if (Object.keys(fixes).length === 0) {
        refuse(
          latest,
          row.findings.length === 0
            ? 'The linter finds nothing here.'
            : 'Only a person can know what to write here; the inspector says what is wrong.',
        )
        return
      }
      const set = fixSet(fixes, row.extra)
      run(latest, () => latest.current.edits.edit({ changes: [{ id: row.id, set }] }))
    },
    copyAddress(row) {
      run(latest, async () => {
        await navigator.clipboard.writeText(row.finalAddress)
        report(latest, `The final address of “${row.name}” is copied.`)
      })
    },
  }
}

/** Writes texts into a block of cells; what cannot be read as its column is left and said. */
async function write(
  latest: Latest,
  range: Range,
  columns: readonly GridColumn[],
  textAt: (row: number, column: number, rows: readonly Code[]) => string | null,
): Promise<void> {
  const { blocks, named, edits } = latest.current
  const rows = await blocks.between(range.top, range.bottom)
  const { changes, unread } = readBlock(rows, columns, named, (i, j) => textAt(i, j, rows))
  if (changes.length > 0) await edits.edit({ changes }, unread)
  else if (unread.length > 0)
    edits.say({ kind: 'trouble', sentence: 'Nothing was changed.', details: unread.slice(0, 50) })
}
/** Pasted rows beyond the last piece are new ones: they are imported, with the same look at them first. */
async function importRows(
  latest: Latest,
  rows: readonly string[][],
  columns: readonly GridColumn[],
): Promise<void> {
  const { campaignId, navigate } = latest.current
  const file = await upload(
    planApi.read,
    { query: { campaignId, name: 'pasted cells' } },
    new TextEncoder().encode(blockText(rows)),
  )
  await call(planApi.adjust, {
    params: { id: file.id },
    body: { delimiter: '\t', headings: false, mapping: columns.map(({ plan }) => plan?.id ?? null) },
  })
  navigate(`../import?file=${String(file.id)}`)
}
