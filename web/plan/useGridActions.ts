import { codesApi, type Code, type CodeSet } from '@flimbo/core/codes'
import { fixesOf, fixSet } from '@flimbo/core/tagging'
import { planApi } from '@flimbo/core/plan'
import { useEffect, useMemo, useRef, useState } from 'react'
import { ApiProblem, call, upload, useChange } from '../api/index.ts'
import { counted } from '@flimbo/core/formats'
import { readBlock, readCell, readText, textOfBlock, type RouteNumbers } from './cells.ts'
import { blockText } from './clipboard.ts'
import type { GridColumn } from './columns.tsx'
import type { GridActions } from './PlanGrid.tsx'
import { pasteShape, type Range } from './range.ts'
import type { SelectionActions } from './SelectionBar.tsx'
import type { Arrangement } from './useArrangement.ts'
import type { Blocks, Listing } from './useBlocks.ts'
import type { Edits } from './useEdits.ts'

interface Parts {
  blocks: Blocks
  listing: Listing
  columns: readonly GridColumn[]
  routes: RouteNumbers
  edits: Edits
  total: number
  arrangement: Arrangement
  campaignId: number
  open: (id: number) => void
  setMoving: (ids: readonly number[]) => void
  setClosed: (change: (old: ReadonlySet<string>) => ReadonlySet<string>) => void
  navigate: (to: string) => void
}

const NONE: ReadonlySet<number> = new Set()

/** Everything the grid can be told to do. Its functions stay the same, so that rows are not drawn anew for them. */
export function useGridActions(parts: Parts) {
  const [chosen, setChosen] = useState<ReadonlySet<number> | 'all'>(NONE)
  const lastToggled = useRef(0)
  const copy = useChange(codesApi.copy)
  const now = useRef({ ...parts, chosen, copy })
  useEffect(() => {
    now.current = { ...parts, chosen, copy }
  })
  // Another list is another choice.
  useEffect(() => {
    setChosen(NONE)
  }, [parts.listing])

  const actions = useMemo(() => {
    const say = (sentence: string) => {
      now.current.edits.say({ kind: 'trouble', sentence, details: [] })
    }
    /** Tells what went wrong where somebody waits for nothing. */
    const run = (work: () => Promise<unknown>) => {
      work().catch((error: unknown) => {
        say(
          error instanceof ApiProblem ? error.problem.detail : 'That could not be done. Nothing was changed.',
        )
      })
    }
    const columnsOf = ({ left, right }: Range) => now.current.columns.slice(left, right + 1)
    async function write(
      range: Range,
      columns: readonly GridColumn[],
      textAt: (row: number, column: number, rows: readonly Code[]) => string | null,
    ): Promise<void> {
      const { blocks, routes, edits } = now.current
      const rows = await blocks.between(range.top, range.bottom)
      const { changes, unread } = readBlock(rows, columns, routes, (i, j) => textAt(i, j, rows))
      if (changes.length > 0) await edits.edit({ changes }, unread)
      else if (unread.length > 0)
        edits.say({ kind: 'trouble', sentence: 'Nothing was changed.', details: unread.slice(0, 50) })
    }
    async function chosenIds(): Promise<number[]> {
      const { chosen: ids, blocks, total } = now.current
      return ids === 'all' ? (await blocks.between(0, total - 1)).map(({ id }) => id) : [...ids]
    }
    /** Changes all chosen pieces; where all are, the server finds them. */
    async function setChosenPieces(set: CodeSet): Promise<void> {
      const { chosen: ids, listing, edits } = now.current
      if (ids === 'all') await edits.edit({ matching: listing.filter, set })
      else await edits.edit({ changes: [...ids].map((id) => ({ id, set })) })
    }

    const grid: GridActions & { fix(row: Code): void; copyAddress(row: Code): void } = {
      open: ({ id }) => {
        now.current.open(id)
      },
      toggle(id, piece, extend) {
        const { blocks, chosen: old, total } = now.current
        const from = lastToggled.current
        lastToggled.current = piece
        if (extend) {
          run(async () => {
            const rows = await blocks.between(Math.min(from, piece), Math.max(from, piece))
            setChosen(
              (before) => new Set([...(before === 'all' ? [] : before), ...rows.map((row) => row.id)]),
            )
          })
          return
        }
        if (old === 'all') {
          run(async () => {
            setChosen(
              new Set(
                (await blocks.between(0, total - 1)).map((row) => row.id).filter((each) => each !== id),
              ),
            )
          })
          return
        }
        const next = new Set(old)
        if (!next.delete(id)) next.add(id)
        setChosen(next)
      },
      chooseAll() {
        setChosen((old) => (old === 'all' ? NONE : 'all'))
      },
      keep(row, column, text) {
        const reading = readCell(row, column, text, now.current.routes)
        return reading.ok && reading.set
          ? now.current.edits.edit({ changes: [{ id: row.id, set: reading.set }] })
          : Promise.resolve()
      },
      clear: (range) => {
        run(() =>
          write(
            range,
            columnsOf(range).filter(({ plan }) => plan !== null),
            () => '',
          ),
        )
      },
      fillDown(range) {
        if (range.top === range.bottom) {
          say('Choose the cell to repeat and those below it first (Shift and the arrow keys).')
          return
        }
        const columns = columnsOf(range)
        run(() =>
          write(range, columns, (_i, j, rows) => {
            const [first] = rows
            const column = columns[j]
            return first && column ? column.text(first) : null
          }),
        )
      },
      paste(block, over) {
        const { columns, total } = now.current
        const width = Math.max(...block.map((row) => row.length))
        const shape = pasteShape({ rows: block.length, columns: width }, over)
        const inside = Math.min(shape.rows, total - over.top)
        const range = {
          top: over.top,
          bottom: over.top + inside - 1,
          left: over.left,
          right: Math.min(columns.length - 1, over.left + shape.columns - 1),
        }
        const pasted = columnsOf(range)
        run(async () => {
          await write(range, pasted, (i, j) => block[i % block.length]?.[j % width] ?? null)
          const beyond = block.slice(inside)
          if (shape.rows === block.length && beyond.length > 0) await grown(beyond, pasted)
        })
      },
      copyFar(range) {
        run(async () => {
          const rows = await now.current.blocks.between(range.top, range.bottom)
          await navigator.clipboard.writeText(textOfBlock(rows, columnsOf(range)))
          now.current.edits.say({
            kind: 'done',
            sentence: `${counted(rows.length, 'row')} copied.`,
            details: [],
          })
        })
      },
      undo: () => {
        now.current.edits.undo()
      },
      redo: () => {
        now.current.edits.redo()
      },
      sortBy(sort, order) {
        const { arrangement } = now.current
        arrangement.setOrder({ ...arrangement.order, sort, order })
      },
      resize: (id, width) => {
        now.current.arrangement.resize(id, width)
      },
      resized: () => {
        now.current.arrangement.resized()
      },
      closeGroup: (key) => {
        now.current.setClosed((old) => {
          const next = new Set(old)
          if (!next.delete(key)) next.add(key)
          return next
        })
      },
      fix(row) {
        const { campaign: _campaign, ...fixes } = fixesOf(row.findings)
        if (Object.keys(fixes).length === 0) {
          say(
            row.findings.length === 0
              ? 'The linter finds nothing here.'
              : 'Only a person can know what to write here; the inspector says what is wrong.',
          )
          return
        }
        const set = fixSet(fixes, row.extra)
        run(() => now.current.edits.edit({ changes: [{ id: row.id, set }] }))
      },
      copyAddress(row) {
        run(async () => {
          await navigator.clipboard.writeText(row.finalAddress)
          now.current.edits.say({
            kind: 'done',
            sentence: `The final address of “${row.name}” is copied.`,
            details: [],
          })
        })
      },
    }

    /** Pasted rows beyond the last piece are new ones: they are imported, with the same look at them first. */
    async function grown(rows: readonly string[][], columns: readonly GridColumn[]): Promise<void> {
      const { campaignId, navigate } = now.current
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

    const selection: SelectionActions = {
      set(column, text) {
        run(async () => {
          const { blocks, routes, chosen: ids, total } = now.current
          const reading = readText(column, text, routes)
          if (!reading.ok) {
            say(reading.sentence)
            return
          }
          // Extras are merged piece by piece; everything else is the same for all.
          const { extra } = reading.set
          if (extra) {
            const rows = (await blocks.between(0, total - 1)).filter(({ id }) => ids === 'all' || ids.has(id))
            await now.current.edits.edit({
              changes: rows.map((row) => ({ id: row.id, set: { extra: { ...row.extra, ...extra } } })),
            })
            return
          }
          await setChosenPieces(reading.set)
        })
      },
      duplicate: () => {
        run(async () => {
          const { ids } = await now.current.copy.mutateAsync({ body: { ids: await chosenIds() } })
          now.current.edits.say({
            kind: 'done',
            sentence: `${counted(ids.length, 'piece')} added, each with a short link of its own.`,
            details: [],
          })
        })
      },
      archive: (on) => {
        run(() => setChosenPieces({ archived: on }))
      },
      remove: () => {
        run(() => setChosenPieces({ state: 'deleted' }))
      },
      move: () => {
        run(async () => {
          now.current.setMoving(await chosenIds())
        })
      },
      clear: () => {
        setChosen(NONE)
      },
    }
    return { grid, selection }
  }, [])

  return { ...actions, chosen, chosenCount: chosen === 'all' ? parts.total : chosen.size }
}
