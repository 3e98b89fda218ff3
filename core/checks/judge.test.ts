import { describe, expect, it } from 'vitest'
import { checkSentence, isFailure, judge, lostTags, VERDICTS, type Hop } from './index.ts'

const hop = (status: number | null, address = 'https://saltmarsh.example/?utm_source=a%20b'): Hop => ({
  address,
  status,
  ms: 5,
  to: null,
})

describe('judging where an address led', () => {
  // Statuses by RFC 9110, section 15.
  it.each([
    [200, 'fine'],
    [204, 'fine'],
    [401, 'refused'],
    [403, 'refused'],
    [404, 'not-found'],
    [410, 'not-found'],
    [429, 'broken'],
    [500, 'broken'],
    [304, 'broken'],
    [null, 'unreachable'],
  ] as const)('status %j is %s', (status, verdict) => {
    expect(judge([hop(status)], { kind: 'answered' }, []).verdict).toBe(verdict)
  })
  it('looks for each tag’s exact value in the last address, however it is escaped there', () => {
    const wanted = [
      ['utm_source', 'a b'],
      ['utm_medium', 'print'],
    ] as const
    expect(lostTags('https://saltmarsh.example/?utm_source=a+b&utm_medium=print', wanted)).toEqual([])
    expect(
      lostTags('https://saltmarsh.example/?utm_source=A%20b&UTM_medium=print#utm_medium=print', wanted),
    ).toEqual(['utm_source', 'utm_medium'])
    expect(
      lostTags('https://saltmarsh.example/?utm_medium=web&utm_medium=print&utm_source=a%20b', wanted),
    ).toEqual([])
  })
  it('has a sentence that says what to do for every verdict, and knows which mean that nobody arrives', () => {
    const sentences = VERDICTS.map((verdict) =>
      checkSentence({ verdict, status: 500, hops: [hop(500)], lost: ['utm_source'], ms: 12 }),
    )
    expect(new Set(sentences).size).toBe(VERDICTS.length)
    for (const sentence of sentences) expect(sentence).toMatch(/\.$/)
    expect(VERDICTS.filter((verdict) => !isFailure(verdict))).toEqual(['fine', 'tags-lost'])
  })
})
