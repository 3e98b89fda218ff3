import { tag, tagPairs, tagsIn, withoutNames } from '../tagging/index.ts'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'

const UTM = { source: 'poster', medium: 'print', campaign: 'summer-26', term: '', content: '' }
const word = fc.string({
  unit: fc.constantFrom('a', 'b', 'Z', '9', '_', '-', '.'),
  minLength: 1,
  maxLength: 6,
})
const value = fc.string({ maxLength: 12 })

describe('parameters of the house’s own', () => {
  it('stand behind the UTM ones, by name, and empty ones are left out', () => {
    expect(tagPairs(UTM, { zone: '3', region: 'north', none: '' }).map(([name]) => name)).toEqual([
      'utm_source',
      'utm_medium',
      'utm_campaign',
      'region',
      'zone',
    ])
  })

  it('win over the destination’s, and say so', () => {
    const { address, clashes } = tag(new URL('https://saltmarsh.example/?region=south&keep=1'), UTM, {
      region: 'north',
    })
    expect(address).toBe(
      'https://saltmarsh.example/?keep=1&utm_source=poster&utm_medium=print&utm_campaign=summer-26&region=north',
    )
    expect(clashes).toEqual([{ name: 'region', replaced: 'south', by: 'north' }])
  })

  it('cannot be changed by a visitor', () => {
    const { carrying } = tag(new URL('https://saltmarsh.example/'), UTM, { region: 'north' })
    expect(carrying('region=south&utm_source=x&mine=1')).toBe(
      'https://saltmarsh.example/?mine=1&utm_source=poster&utm_medium=print&utm_campaign=summer-26&region=north',
    )
  })

  it('never take a foreign parameter away, change its bytes, or its order', () => {
    const foreign = fc
      .array(fc.tuple(word, value), { maxLength: 6 })
      .map((pairs) => pairs.filter(([name]) => !name.startsWith('utm_') && name !== 'region'))
    fc.assert(
      fc.property(foreign, value, (pairs, region) => {
        const query = new URLSearchParams(pairs).toString()
        const destination = new URL(`https://saltmarsh.example/p?${query}#f`)
        const tagged = new URL(tag(destination, UTM, { region }).address)
        const left = [...tagged.searchParams].filter(
          ([name]) => !name.startsWith('utm_') && name !== 'region',
        )
        expect(left).toEqual([...destination.searchParams])
        expect(tagged.search.startsWith(destination.search)).toBe(true)
        expect(tagged.hash).toBe('#f')
      }),
    )
  })

  it('make the same address however often a destination is tagged', () => {
    fc.assert(
      fc.property(value, value, (source, region) => {
        const utm = { ...UTM, source: source.trim() || 's' }
        const once = tag(new URL('https://saltmarsh.example/p?a=1'), utm, { region }).address
        expect(tag(new URL(once), utm, { region }).address).toBe(once)
      }),
    )
  })
})

describe('tags that a destination has already', () => {
  it('are found by their prefix in any case, and by the names of the house', () => {
    const url = new URL('https://saltmarsh.example/?UTM_Source=a&utm_id=7&region=b&x=1&utm_id=8')
    expect(tagsIn(url, ['region'])).toEqual([
      { name: 'UTM_Source', value: 'a' },
      { name: 'utm_id', value: '7' },
      { name: 'region', value: 'b' },
    ])
    expect(tagsIn(new URL('https://saltmarsh.example/?x=utm_source'))).toEqual([])
  })

  it('are taken out, and everything else stays byte for byte', () => {
    const url = new URL('https://saltmarsh.example/a%20b?x=%7E+1&utm_id=7&&y#frag?utm_id=9')
    expect(withoutNames(url, new Set(['utm_id']))).toBe(
      'https://saltmarsh.example/a%20b?x=%7E+1&y#frag?utm_id=9',
    )
    expect(withoutNames(new URL('https://saltmarsh.example/?utm_id=7'), new Set(['utm_id']))).toBe(
      'https://saltmarsh.example/',
    )
  })
})
