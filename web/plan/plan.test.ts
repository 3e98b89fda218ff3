import fc from 'fast-check'
import { describe, expect, it, vi } from 'vitest'
import type { CodeGroup } from '@flimbo/core/codes'
import { blockFrom, blockText } from './clipboard.ts'
import { linesOf } from './lines.ts'
import { cellsIn, pasteShape, rangeOf } from './range.ts'
import { gridKey, type GridMoves } from './useGridKeys.ts'

const groups = fc
  .array(fc.integer({ min: 1, max: 9 }), { maxLength: 8 })
  .map((sizes): CodeGroup[] =>
    sizes.map((pieces, i) => ({ key: `g${String(i)}`, pieces, scans: 0, printRun: 0, cost: 0 })),
  )

describe('the lines of the grid', () => {
  it('without groups are the pieces', () => {
    const lines = linesOf(50_000, null, new Set())
    expect([
      lines.count,
      lines.at(49_999),
      lines.lineOf(7),
      lines.step(0, -1),
      lines.step(49_999, 1),
      lines.step(10, 20),
    ]).toEqual([50_000, { kind: 'piece', piece: 49_999 }, 7, 0, 49_999, 30])
  })
  it('with groups hold every piece of an open one once, below its heading, in order', () => {
    fc.assert(
      fc.property(groups, fc.array(fc.nat(8)), (all, shut) => {
        const closed = new Set(shut.map((i) => `g${String(i)}`))
        const total = all.reduce((sum, { pieces }) => sum + pieces, 0)
        const lines = linesOf(total, all, closed)
        const seen = Array.from({ length: lines.count }, (_, i) => lines.at(i))
        expect(seen.flatMap((line) => (line.kind === 'group' ? [line.group.key] : []))).toEqual(
          all.map(({ key }) => key),
        )
        const pieces = seen.flatMap((line) => (line.kind === 'piece' ? [line.piece] : []))
        let first = 0
        const wanted = all.flatMap(({ key, pieces: n }) => {
          const own = Array.from({ length: n }, (_, i) => first + i)
          first += n
          return closed.has(key) ? [] : own
        })
        expect(pieces).toEqual(wanted)
        for (const piece of pieces)
          expect(lines.at(lines.lineOf(piece) ?? -1)).toEqual({ kind: 'piece', piece })
      }),
    )
  })
  it('are stepped through past headings', () => {
    const lines = linesOf(
      4,
      [
        { key: 'a', pieces: 2, scans: 0, printRun: 0, cost: 0 },
        { key: 'b', pieces: 2, scans: 0, printRun: 0, cost: 0 },
      ],
      new Set(),
    )
    expect([lines.step(1, 1), lines.step(2, -1), lines.step(0, -1)]).toEqual([2, 1, 0])
  })

  it('ends with the static codes, below a heading, where no step leads', () => {
    const lines = linesOf(2, null, new Set(), 2)
    expect(Array.from({ length: lines.count }, (_, i) => lines.at(i).kind)).toEqual([
      'piece',
      'piece',
      'static-heading',
      'static',
      'static',
    ])
    expect([lines.at(4), lines.step(1, 1)]).toEqual([{ kind: 'static', at: 1 }, 1])
    expect(linesOf(0, null, new Set(), 1).step(0, 1)).toBe(0)
  })
})

describe('a block of cells', () => {
  it('lies between its ends, whichever came first', () => {
    const range = rangeOf({ piece: 5, column: 3 }, { piece: 2, column: 7 })
    expect([range, cellsIn(range)]).toEqual([{ top: 2, bottom: 5, left: 3, right: 7 }, 20])
  })
  it.each([
    [
      { rows: 1, columns: 1 },
      { rows: 4, columns: 2 },
    ],
    [
      { rows: 2, columns: 1 },
      { rows: 4, columns: 2 },
    ],
    [
      { rows: 3, columns: 1 },
      { rows: 3, columns: 1 },
    ],
    [
      { rows: 9, columns: 9 },
      { rows: 9, columns: 9 },
    ],
  ])('of %j pasted over four rows of two fills %j', (block, filled) => {
    expect(pasteShape(block, { top: 0, bottom: 3, left: 0, right: 1 })).toEqual(filled)
  })
  it('comes back from the clipboard as it went, tabs, quotes and line breaks in it', () => {
    const cell = fc
      .string({ unit: fc.constantFrom('a', '\t', '"', '\n', ' ', ','), maxLength: 5 })
      .map((text) => `x${text}`)
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { minLength: 2, maxLength: 2 }), { minLength: 1, maxLength: 4 }),
        (rows) => {
          expect(blockFrom(blockText(rows))).toEqual(rows)
        },
      ),
    )
  })
  it('is taken from what other programs copy', () => {
    expect(blockFrom('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ])
    expect(blockFrom('5" board')).toEqual([['5" board']])
    expect(blockFrom('5" board\tx\n"open\ty')).toEqual([
      ['5" board', 'x'],
      ['"open', 'y'],
    ])
    expect(blockFrom('')).toEqual([['']])
  })
})

describe('the keys of the grid', () => {
  function press(
    key: string,
    held: { ctrlKey?: boolean; shiftKey?: boolean; altKey?: boolean } = {},
    active = { piece: 5, column: 2 },
  ) {
    const moves = {
      active,
      pieces: 100,
      columns: 6,
      page: 10,
      step: (piece: number, by: number) => Math.min(99, Math.max(0, piece + by)),
      go: vi.fn(),
      edit: vi.fn(),
      open: vi.fn(),
      toggle: vi.fn(),
      chooseAll: vi.fn(),
      clear: vi.fn(),
      fillDown: vi.fn(),
      undo: vi.fn(),
      redo: vi.fn(),
      widen: vi.fn(),
    } satisfies GridMoves
    const preventDefault = vi.fn()
    gridKey(
      {
        key,
        ctrlKey: false,
        metaKey: false,
        shiftKey: false,
        altKey: false,
        ...held,
        preventDefault,
      } as never,
      moves,
    )
    const called = Object.entries(moves).flatMap(([name, each]) =>
      vi.isMockFunction(each) && each.mock.calls.length > 0
        ? [[name, ...(each.mock.calls[0] as unknown[])]]
        : [],
    )
    return { called: called[0], taken: preventDefault.mock.calls.length > 0 }
  }
  it.each([
    ['ArrowDown', {}, ['go', { piece: 6, column: 2 }, false]],
    ['ArrowUp', { shiftKey: true }, ['go', { piece: 4, column: 2 }, true]],
    ['ArrowRight', { ctrlKey: true }, ['go', { piece: 5, column: 5 }, false]],
    ['End', { ctrlKey: true }, ['go', { piece: 99, column: 5 }, false]],
    ['Home', {}, ['go', { piece: 5, column: 0 }, false]],
    ['PageDown', {}, ['go', { piece: 15, column: 2 }, false]],
    ['Tab', {}, ['go', { piece: 5, column: 3 }, false]],
    ['Enter', {}, ['edit']],
    ['Enter', { ctrlKey: true }, ['open']],
    ['F2', {}, ['edit']],
    [' ', {}, ['toggle']],
    ['Delete', {}, ['clear']],
    ['a', { ctrlKey: true }, ['chooseAll']],
    ['d', { ctrlKey: true }, ['fillDown']],
    ['z', { ctrlKey: true }, ['undo']],
    ['Z', { ctrlKey: true, shiftKey: true }, ['redo']],
    ['y', { ctrlKey: true }, ['redo']],
    ['ArrowLeft', { altKey: true, shiftKey: true }, ['widen', -16]],
  ])('%s %j', (key, held, call) => {
    expect(press(key, held)).toEqual({ called: call, taken: true })
  })
  it.each([
    ['Tab', {}, { piece: 0, column: 5 }],
    ['Tab', { shiftKey: true }, { piece: 0, column: 0 }],
    ['j', {}, { piece: 0, column: 0 }],
    ['c', { ctrlKey: true }, { piece: 0, column: 0 }],
    ['Escape', {}, { piece: 0, column: 0 }],
  ])('leaves %s %j to the page', (key, held, active) => {
    expect(press(key, held, active)).toEqual({ called: undefined, taken: false })
  })
})
