import { Script } from 'node:vm'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addReference,
  goalHit,
  goalOfHit,
  goalSettings,
  goalsOfView,
  matchesAddress,
  REFERENCE_PARAMETER,
  SCRIPT_BYTES_MAX,
  siteHit,
  siteScript,
  siteSettings,
  viewHit,
  type Goal,
} from './index.ts'

const goal = (more: Partial<Goal> = {}): Goal => ({
  ...{ id: 1, name: 'Pass', kind: 'sent', key: 'pass', pattern: '', selector: '', value: null },
  ...{ counts: 'scan', signedOnly: false, isOn: true },
  ...more,
})
const faultsOf = (more: Partial<Goal>) => {
  const { id: _id, ...settings } = goal(more)
  const read = goalSettings.safeParse(settings)
  return read.success ? [] : read.error.issues.map(({ path }) => path.join('.'))
}

describe('an address that is a goal', () => {
  it.each([
    ['/order/thanks', 'https://shop.example/order/thanks', true],
    ['/order/thanks', 'https://shop.example/order/thanks/?id=3#top', true],
    ['/order/thanks', 'https://shop.example/order/thanks-not', false],
    ['/order/*', 'https://shop.example/order/4711/done', true],
    ['/order/*/done', 'https://shop.example/order/4711/done', true],
    ['/order/*/done', 'https://shop.example/order/4711', false],
    ['/a*a', 'https://shop.example/a', false],
    ['SHOP.example/thanks', 'https://shop.example/thanks', true],
    ['https://shop.example/thanks', 'http://shop.example/thanks', true],
    ['shop.example/thanks', 'https://other.example/thanks', false],
    ['*.example/thanks', 'https://shop.example/thanks', true],
    ['/thanks?kind=pass*', 'https://shop.example/thanks?kind=pass&x=1', true],
    ['/thanks?kind=pass', 'https://shop.example/thanks?kind=day', false],
    ['/', 'https://shop.example', true],
    ['/Thanks', 'https://shop.example/thanks', false],
    ['/thanks', 'no address', false],
  ])('%s is meant by %s: %s', (pattern, address, isMeant) => {
    expect(matchesAddress(pattern, address)).toBe(isMeant)
  })

  it('is found quickly, whatever is asked', () => {
    const began = performance.now()
    matchesAddress(`/${'*a'.repeat(8)}b`, `https://a.example/${'a'.repeat(4000)}`)
    expect(performance.now() - began).toBeLessThan(200)
  })

  it('is the path itself, and any longer one with an asterisk behind it', () => {
    fc.assert(
      fc.property(fc.webPath(), fc.webPath(), (path, more) => {
        const { href, pathname } = new URL(`https://a.example${path}`)
        // An asterisk in a path is itself no wildcard to be tested here.
        fc.pre(!pathname.includes('*') && pathname !== '')
        expect(matchesAddress(pathname, href)).toBe(true)
        expect(matchesAddress(`${pathname}*`, new URL(href + more).href)).toBe(true)
      }),
    )
  })
})

describe('a goal', () => {
  it('says what is missing', () => {
    expect(faultsOf({ kind: 'address' })).toEqual(['pattern'])
    expect(faultsOf({ kind: 'address', pattern: 'thanks' })).toEqual(['pattern'])
    expect(faultsOf({ kind: 'address', pattern: '/a b' })).toEqual(['pattern'])
    expect(faultsOf({ kind: 'click' })).toEqual(['selector'])
    expect(faultsOf({ kind: 'click', selector: '#buy', signedOnly: true })).toEqual(['signedOnly'])
    expect(faultsOf({ key: 'a b' })).toEqual(['key'])
    expect(faultsOf({ value: -1 })).toEqual(['value'])
    expect(faultsOf({ kind: 'address', pattern: '/thanks' })).toEqual([])
  })

  it('is reached by a page as often as it counts', () => {
    const view = viewHit.parse({ ref: 'r', view: 'v1', address: 'https://a.example/thanks' })
    const page = goal({ kind: 'address', pattern: '/thanks', value: 12.5 })
    const goals = [page, { ...page, id: 2, counts: 'each' as const }, { ...page, id: 3, isOn: false }]
    expect(goalsOfView(view, goals, { scanId: 7 })).toEqual([
      { goalId: 1, once: 'scan 7', order: '', valueMilli: 12_500 },
      { goalId: 2, once: 'view 7 v1', order: '', valueMilli: 12_500 },
    ])
  })

  const visit = { scanId: 7, currency: 'EUR' }
  const hit = (more: object) => goalHit.parse({ ref: 'r', goal: 'pass', ...more })
  it('is reached by what a site sends, and an order counts once', () => {
    expect(goalOfHit(hit({ value: '39.00', order: 4711 }), [goal({ counts: 'each' })], visit, false)).toEqual(
      {
        ...{ goalId: 1, once: 'order 4711', order: '4711', valueMilli: 39_000 },
      },
    )
    expect(goalOfHit(hit({ event: 'e1' }), [goal({ counts: 'each', value: 2 })], visit, false)).toMatchObject(
      {
        ...{ once: 'event 7 e1', valueMilli: 2000 },
      },
    )
    expect(goalOfHit(hit({ event: 'e1', order: '9' }), [goal()], visit, false)).toMatchObject({
      ...{ once: 'scan 7', order: '9' },
    })
  })

  it.each([
    [{}, goal({ key: 'other' }), false, 'unknown'],
    [{}, goal({ kind: 'address', pattern: '/x' }), false, 'unknown'],
    [{}, goal({ isOn: false }), false, 'off'],
    [{}, goal({ signedOnly: true }), false, 'unsigned'],
    [{ currency: 'dkk' }, goal(), true, 'currency'],
  ])('is not reached by %j of %j', (sent, of, isSigned, why) => {
    expect(goalOfHit(hit(sent), [of], visit, isSigned)).toBe(why)
  })

  it.each([
    [{ value: '39,00' }],
    [{ value: -1 }],
    [{ value: 1e12 }],
    [{ value: Infinity }],
    [{ currency: 'euro' }],
    [{ order: 'x'.repeat(101) }],
    [{ goal: '' }],
    [{ ref: '' }],
  ])('is not read from %j', (sent) => {
    expect(goalHit.safeParse({ ref: 'r', goal: 'pass', ...sent }).success).toBe(false)
  })

  it('is read with parameters that nobody filled in', () => {
    expect(goalHit.parse({ ref: 'r', goal: 'Pass', value: '', order: '', currency: '' })).toEqual({
      ...{ ref: 'r', goal: 'pass' },
    })
    expect(siteHit.safeParse({ ref: 'r' }).success).toBe(false)
  })
})

describe('the reference in an address', () => {
  it.each([
    ['https://a.example/x', 'https://a.example/x?flimbo=R'],
    ['https://a.example/x?a=1#top', 'https://a.example/x?a=1&flimbo=R#top'],
    ['https://a.example/x?flimbo=old&b=2', 'https://a.example/x?b=2&flimbo=R'],
    ['mailto:a@b.example', 'mailto:a@b.example'],
  ])('of %s', (address, expected) => {
    expect(addReference(address, 'R')).toBe(expected)
  })

  it('leaves every other parameter and the fragment as they were', () => {
    fc.assert(
      fc.property(fc.webUrl({ withQueryParameters: true, withFragments: true }), (text) => {
        const { href } = new URL(text)
        const url = new URL(addReference(href, 'R.1_-'))
        expect(url.searchParams.getAll(REFERENCE_PARAMETER)).toEqual(['R.1_-'])
        url.searchParams.delete(REFERENCE_PARAMETER)
        const was = new URL(href)
        was.searchParams.delete(REFERENCE_PARAMETER)
        expect([...url.searchParams]).toEqual([...was.searchParams])
        expect([url.origin, url.pathname, url.hash]).toEqual([was.origin, was.pathname, was.hash])
      }),
      // A parameter without a name is one too.
      { examples: [['http://a.example/?='], ['http://a.example/?&&a=1&=#x']] },
    )
  })
})

describe('the script of a site', () => {
  it('is small, is a script, and heeds signals only where it should', () => {
    const address = `https://${'a'.repeat(60)}.example/~goals/1.${'x'.repeat(22)}`
    const script = siteScript(address, true)
    expect(Buffer.byteLength(script)).toBeLessThan(SCRIPT_BYTES_MAX)
    expect(() => new Script(script)).not.toThrow()
    expect(script).toContain('globalPrivacyControl')
    expect(siteScript(address, false)).not.toContain('globalPrivacyControl')
    expect(script).not.toMatch(/cookie/i)
  })
})

describe('sites that may report', () => {
  it('are named by origin, however they are typed', () => {
    const read = (origins: string[]) =>
      siteSettings.safeParse({ honoursSignals: true, secretNumber: 0, origins })
    expect(read(['shop.example', 'http://Shop.example:8080/x']).data?.origins).toEqual([
      ...['https://shop.example', 'http://shop.example:8080'],
    ])
    expect(read(['not a site']).success).toBe(false)
    expect(read(['ftp://shop.example']).success).toBe(false)
  })
})
