import { describe, expect, it } from 'vitest'
import { country, language, orUnknown } from './index.ts'

describe('what a code stands for', () => {
  // ISO 3166-1 and BCP 47 codes, by the names the runtime ships.
  it.each([
    ['DE', 'Germany'],
    ['', 'Not known'],
    ['XK', 'Kosovo'],
  ])('the country %j as %s', (code, name) => {
    expect(country(code)).toBe(name)
  })
  it.each([
    ['de', 'German'],
    ['', 'Not named'],
    ['de-AT', 'Austrian German'],
  ])('the language %j as %s', (tag, name) => {
    expect(language(tag)).toBe(name)
  })
  it('what is not known says so', () => {
    expect([orUnknown(''), orUnknown('iOS')]).toEqual(['Not known', 'iOS'])
  })
})
