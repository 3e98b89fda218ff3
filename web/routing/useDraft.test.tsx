import { NO_RULES, type WholeRoute } from '@flimbo/core/routing'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { around, conflict, refusal, startOffice, type Asked } from '../tests/office.tsx'
import { useDraft } from './useDraft.ts'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const LIVE = 'https://live.example/'
const route = (draftVersion: number, destination: string | null = null) =>
  // The hook reads no more of a route than this.
  ({
    id: 7,
    destination: LIVE,
    rules: NO_RULES,
    draftVersion,
    draft: destination === null ? null : { destination, rules: NO_RULES },
  }) as WholeRoute

/** A stored draft, saved by its version as the office does. */
function store(first: WholeRoute) {
  const office = { stored: first }
  const save = ({ body }: Asked): unknown => {
    const { draftVersion, destination } = body as { draftVersion: number; destination: string }
    if (draftVersion !== office.stored.draftVersion) return conflict(office.stored)
    office.stored = route(draftVersion + 1, destination)
    return office.stored
  }
  return { office, save }
}

function open(first: WholeRoute) {
  return renderHook(({ stored }) => useDraft(stored), { wrapper: around, initialProps: { stored: first } })
}
const leadTo = (destination: string) => (was: { rules: typeof NO_RULES }) => ({ ...was, destination })

describe('a draft', () => {
  it('is saved by itself after the last of several edits, once, from the version it began with', async () => {
    const { office, save } = store(route(3))
    const { writes } = startOffice(save)
    const { result, rerender } = open(office.stored)
    expect(result.current).toMatchObject({ isPrepared: false, isKept: true })
    act(() => {
      result.current.edit(leadTo('https://a.example/'))
    })
    act(() => {
      result.current.edit(leadTo('https://ab.example/'))
    })
    expect(result.current).toMatchObject({ isPrepared: true, isKept: false })
    await waitFor(() => {
      expect(result.current.isKept).toBe(true)
    })
    rerender({ stored: office.stored })
    expect(writes().map(({ body }) => body)).toEqual([
      { draftVersion: 3, destination: 'https://ab.example/', rules: NO_RULES },
    ])
    expect(result.current).toMatchObject({
      version: 4,
      isPrepared: true,
      draft: { destination: 'https://ab.example/' },
    })
  })

  it('takes back what was typed in one go in one go', async () => {
    const { office, save } = store(route(0))
    startOffice(save)
    const { result } = open(office.stored)
    expect(result.current.undo).toBeNull()
    for (const destination of ['https://a.example/', 'https://ab.example/', 'https://abc.example/'])
      act(() => {
        result.current.edit(leadTo(destination))
      })
    act(() => {
      result.current.undo?.()
    })
    expect(result.current.draft.destination).toBe(LIVE)
    expect(result.current.undo).toBeNull()
    await waitFor(() => {
      expect(office.stored.draft?.destination).toBe(LIVE)
    })
  })

  it('does not send what the contract refuses, and says why at once', async () => {
    const { office, save } = store(route(0))
    const { writes } = startOffice(save)
    const { result } = open(office.stored)
    act(() => {
      result.current.edit(leadTo('nowhere'))
    })
    expect(result.current.fault).toMatch(/http/)
    await new Promise((resolve) => setTimeout(resolve, 700))
    expect(writes()).toEqual([])
  })

  it('keeps what was done while the office cannot be reached or refuses it, and says so', async () => {
    let answer: () => unknown = () => {
      throw new Error('offline')
    }
    const { office, save } = store(route(0))
    startOffice((asked) => (answer() ? answer() : save(asked)))
    const { result } = open(office.stored)
    act(() => {
      result.current.edit(leadTo('https://a.example/'))
    })
    await waitFor(() => {
      expect(result.current.fault).toMatch(/cannot be reached/)
    })
    answer = () => refusal('The page of that lane is gone.')
    act(() => {
      result.current.edit(leadTo('https://b.example/'))
    })
    await waitFor(() => {
      expect(result.current.fault).toBe('The page of that lane is gone.')
    })
    expect(result.current).toMatchObject({ isKept: false, draft: { destination: 'https://b.example/' } })
    answer = () => null
    act(() => {
      result.current.edit(leadTo('https://c.example/'))
    })
    await waitFor(() => {
      expect(result.current).toMatchObject({ isKept: true, fault: null })
    })
    expect(office.stored.draft?.destination).toBe('https://c.example/')
  })

  it.each([
    ['overwrite', 'https://mine.example/'],
    ['keepStored', 'https://theirs.example/'],
  ] as const)('asks where somebody else saved meanwhile: %s', async (choice, remains) => {
    const { office, save } = store(route(5))
    const { writes } = startOffice(save)
    const { result, rerender } = open(office.stored)
    office.stored = route(6, 'https://theirs.example/')
    act(() => {
      result.current.edit(leadTo('https://mine.example/'))
    })
    await waitFor(() => {
      expect(result.current.isOvertaken).toBe(true)
    })
    // Seen live, too: neither that nor time decides.
    rerender({ stored: office.stored })
    expect(office.stored.draft?.destination).toBe('https://theirs.example/')
    expect(result.current.draft.destination).toBe('https://mine.example/')
    act(() => {
      result.current[choice]()
    })
    await waitFor(() => {
      expect(result.current).toMatchObject({ isOvertaken: false, isKept: true })
    })
    rerender({ stored: office.stored })
    expect(result.current.draft.destination).toBe(remains)
    expect(office.stored.draft?.destination).toBe(remains)
    expect(writes()).toHaveLength(choice === 'overwrite' ? 2 : 1)
  })

  it('follows what others save while nothing is edited here', () => {
    startOffice(() => null)
    const { result, rerender } = open(route(1))
    rerender({ stored: route(2, 'https://theirs.example/') })
    expect(result.current).toMatchObject({ version: 2, draft: { destination: 'https://theirs.example/' } })
  })
})
