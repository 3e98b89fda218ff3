import { workspaceApi, workspaceSettings, type WorkspaceSettings } from '@flimbo/core/workspace'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { around, conflict, refusal, startOffice, type Asked } from '../tests/office.tsx'
import { useSetting } from './useSetting.ts'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

interface Stored {
  value: WorkspaceSettings
  version: number
}

/** Settings as the office keeps them: read by anyone, saved from their version. */
function store(value: WorkspaceSettings) {
  const office: { stored: Stored } = { stored: { value, version: 1 } }
  const answer = ({ method, body }: Asked): unknown => {
    if (method === 'GET') return office.stored
    const sent = body as Stored
    if (sent.version !== office.stored.version) return conflict(office.stored)
    office.stored = { value: sent.value, version: sent.version + 1 }
    return office.stored
  }
  return { office, answer }
}

const EUR: WorkspaceSettings = workspaceSettings.parse({ slugLength: 7, currency: 'EUR' })

async function open() {
  const { result } = renderHook(
    () => useSetting(workspaceApi.settings, workspaceApi.changeSettings, workspaceSettings),
    { wrapper: around },
  )
  await waitFor(() => {
    expect(result.current.value).toBeDefined()
  })
  return result
}

describe('a part of the settings', () => {
  it('is edited until it is saved, and what is typed back is no edit', async () => {
    const { office, answer } = store(EUR)
    startOffice(answer)
    const result = await open()
    act(() => {
      result.current.set({ ...EUR, currency: 'DKK' })
    })
    expect(result.current.isDirty).toBe(true)
    act(() => {
      result.current.set({ ...EUR })
    })
    expect(result.current.isDirty).toBe(false)
    act(() => {
      result.current.set({ ...EUR, currency: 'DKK' })
    })
    await act(() => result.current.save())
    expect(office.stored).toEqual({ value: { ...EUR, currency: 'DKK' }, version: 2 })
    expect(result.current).toMatchObject({ isDirty: false, value: { currency: 'DKK' } })
  })

  it('is not sent with a fault; each stands at its field', async () => {
    const { answer } = store(EUR)
    const { writes } = startOffice(answer)
    const result = await open()
    act(() => {
      result.current.set({ ...EUR, currency: 'euros' })
    })
    await act(() => result.current.save())
    expect(result.current.faultOf('currency')).toBeDefined()
    expect(result.current.faultOf('slugLength')).toBeUndefined()
    expect(writes()).toEqual([])
    act(() => {
      result.current.reset()
    })
    expect(result.current).toMatchObject({ isDirty: false, faults: [], value: EUR })
  })

  it('shows the office’s own sentence and keeps what was typed', async () => {
    const { office, answer } = store(EUR)
    startOffice((asked) => (asked.method === 'GET' ? answer(asked) : refusal('Only an admin changes this.')))
    const result = await open()
    act(() => {
      result.current.set({ ...EUR, slugLength: 9 })
    })
    await act(() => result.current.save())
    expect(result.current).toMatchObject({
      trouble: 'Only an admin changes this.',
      isDirty: true,
      value: { slugLength: 9 },
    })
    expect(office.stored.version).toBe(1)
  })

  it.each([
    ['overwrite', 9],
    ['reset', 12],
  ] as const)('asks where somebody saved meanwhile: %s', async (choice, remains) => {
    const { office, answer } = store(EUR)
    startOffice(answer)
    const result = await open()
    act(() => {
      result.current.set({ ...EUR, slugLength: 9 })
    })
    office.stored = { value: { ...EUR, slugLength: 12 }, version: 2 }
    await act(() => result.current.save())
    expect(result.current.isOvertaken).toBe(true)
    expect(office.stored.value.slugLength).toBe(12)
    expect(result.current.value?.slugLength).toBe(9)
    await act(async () => {
      await result.current[choice]()
    })
    await waitFor(() => {
      expect(result.current).toMatchObject({
        isOvertaken: false,
        isDirty: false,
        value: { slugLength: remains },
      })
    })
    expect(office.stored.value.slugLength).toBe(remains)
  })
})
