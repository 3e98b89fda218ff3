import type { CodeCellChange } from '@flimbo/core/codes'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { around, refusal, startOffice, type Asked } from '../tests/office.tsx'
import { useEdits } from './useEdits.ts'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

/** A plan of names, changed as the office changes it; `slow` makes the first change take longer than the second. */
function plan(names: Record<number, string>) {
  return async ({ body }: Asked): Promise<unknown> => {
    const { changes } = body as { changes: CodeCellChange[] }
    const undo: CodeCellChange[] = []
    const refused: { id: number; name: string; sentence: string }[] = []
    await new Promise((resolve) => setTimeout(resolve, changes[0]?.set.name === 'slow' ? 60 : 1))
    for (const { id, set } of changes) {
      if (set.name === 'taken') {
        refused.push({ id, name: names[id] ?? '', sentence: 'The name is taken.' })
        continue
      }
      undo.push({ id, set: { name: names[id] ?? '' } })
      names[id] = set.name ?? ''
    }
    return { changed: undo.length, refused, undo }
  }
}
const open = () => renderHook(() => useEdits(), { wrapper: around })
const rename = (id: number, name: string) => ({ changes: [{ id, set: { name } }] })

describe('edits of the plan', () => {
  it('are taken back in the opposite order and made again, and a new edit ends what can be made again', async () => {
    const names = { 1: 'Pier', 2: 'Bus' }
    startOffice(plan(names))
    const { result } = open()
    expect(result.current).toMatchObject({ canUndo: false, canRedo: false })
    await act(() => result.current.edit(rename(1, 'Pier west')))
    await act(() => result.current.edit(rename(2, 'Bus back')))
    act(() => {
      result.current.undo()
    })
    await waitFor(() => {
      expect(names).toEqual({ 1: 'Pier west', 2: 'Bus' })
    })
    act(() => {
      result.current.undo()
    })
    await waitFor(() => {
      expect(result.current).toMatchObject({ canUndo: false, canRedo: true })
    })
    expect(names).toEqual({ 1: 'Pier', 2: 'Bus' })
    act(() => {
      result.current.redo()
    })
    await waitFor(() => {
      expect(names).toEqual({ 1: 'Pier west', 2: 'Bus' })
    })
    await act(() => result.current.edit(rename(2, 'Tram')))
    expect(result.current).toMatchObject({ canUndo: true, canRedo: false })
  })

  it('arrive in the order they were made, however long the first takes', async () => {
    const names = { 1: 'Pier' }
    startOffice(plan(names))
    const { result } = open()
    await act(async () => {
      await Promise.all([result.current.edit(rename(1, 'slow')), result.current.edit(rename(1, 'last'))])
    })
    expect(names).toEqual({ 1: 'last' })
  })

  it('say which cells were not taken, and can take back the others', async () => {
    const names = { 1: 'Pier', 2: 'Bus' }
    startOffice(plan(names))
    const { result } = open()
    await act(() =>
      result.current.edit({ changes: [...rename(1, 'taken').changes, ...rename(2, 'Tram').changes] }, [
        'Cost: “x” is no amount.',
      ]),
    )
    expect(result.current.outcome).toEqual({
      kind: 'trouble',
      sentence: '1 piece changed; 2 cells were not taken.',
      details: ['Cost: “x” is no amount.', 'Pier: The name is taken.'],
    })
    act(() => {
      result.current.undo()
    })
    await waitFor(() => {
      expect(names).toEqual({ 1: 'Pier', 2: 'Bus' })
    })
  })

  it('say that nothing was saved where the office refuses, and go on', async () => {
    let isRefusing = true
    const names = { 1: 'Pier' }
    const change = plan(names)
    startOffice((asked) => (isRefusing ? refusal('You may only look at this campaign.') : change(asked)))
    const { result } = open()
    await act(() => result.current.edit(rename(1, 'Quay')))
    expect(result.current).toMatchObject({
      canUndo: false,
      outcome: { kind: 'trouble', sentence: 'You may only look at this campaign.' },
    })
    isRefusing = false
    await act(() => result.current.edit(rename(1, 'Quay')))
    expect(names).toEqual({ 1: 'Quay' })
  })
})
