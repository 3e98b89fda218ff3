import { describe, expect, it } from 'vitest'
import { rehearsalHeader, rehearsalOf, rehearsals } from './rehearsal.ts'

describe('a rehearsal’s signature', () => {
  const by = rehearsals('one secret')
  const header = rehearsalHeader(by, '192.0.2.1', 1000)
  it('is good for a minute, for its address, and with this secret alone', () => {
    expect(rehearsalOf(by, header, 30_000)).toEqual({ address: '192.0.2.1' })
    expect(rehearsalOf(by, header, 62_000)).toBeNull()
    expect(rehearsalOf(by, header.replace('192.0.2.1', '192.0.2.2'), 1000)).toBeNull()
    expect(rehearsalOf(rehearsals('another'), header, 1000)).toBeNull()
    for (const forged of ['', '~', '~~', header.slice(0, -1), '9999999999999~192.0.2.1~'])
      expect(rehearsalOf(by, forged, 1000)).toBeNull()
  })
})
