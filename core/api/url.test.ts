import { describe, expect, it } from 'vitest'
import { readDestination } from '../routing/index.ts'
import { readUrl } from './index.ts'

describe('reading an address', () => {
  it('gives what the parser gives, and null where it is none', () => {
    expect([
      readUrl('https://saltmarsh.example/a')?.pathname,
      readUrl('/b', 'https://saltmarsh.example/a')?.href,
      readUrl('nonsense'),
      readUrl(''),
    ]).toEqual(['/a', 'https://saltmarsh.example/b', null, null])
  })

  // Measured here: with URL.canParse the first wrong answer came at the 2,900th call.
  it('takes letters beyond ASCII however often it was asked before', () => {
    const wrong = Array.from(
      { length: 20_000 },
      () => readDestination('https://müller.example/größe').ok,
    ).filter((ok) => !ok)
    expect(wrong).toEqual([])
  })
})
