import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FORM_MS, formKeys } from './formKeys.ts'
import { formPace } from './formPace.ts'

const keys = formKeys(Buffer.from('a key of a front door'))
const AT = Date.parse('2026-07-01T12:00:00Z')

describe('the key of a form', () => {
  it('says when the form was shown, for as long as one may lie open, and to that form alone', () => {
    const key = keys.issue('token f', AT)
    expect(keys.read(key, 'token f', AT + FORM_MS)?.at).toBe(AT)
    expect(keys.read(key, 'token f', AT + FORM_MS + 1)).toBeNull()
    expect(keys.read(key, 'token f', AT - 1)).toBeNull()
    expect(keys.read(key, 'token g', AT)).toBeNull()
    expect(formKeys(Buffer.from('another')).read(key, 'token f', AT)).toBeNull()
  })

  it('is another each time, so that what is sent twice is known from what is sent again', () => {
    const issued = Array.from(
      { length: 500 },
      () => keys.read(keys.issue('token f', AT), 'token f', AT)?.nonce,
    )
    expect(new Set(issued).size).toBe(500)
    expect(issued).not.toContain(undefined)
  })

  it('is good only as it was written', () => {
    const key = keys.issue('token f', AT)
    fc.assert(
      fc.property(fc.nat(key.length - 1), fc.string({ minLength: 1, maxLength: 1 }), (at, sign) => {
        const other = key.slice(0, at) + sign + key.slice(at + 1)
        expect(keys.read(other, 'token f', AT) === null).toBe(other !== key)
      }),
    )
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(keys.read(text, 'token f', AT)).toBeNull()
      }),
    )
  })
})

describe('what a front door signed', () => {
  it('is read back, whatever is in it, and nothing else is', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, unit: 'grapheme' }), fc.string(), (name, tail) => {
        const signed = keys.sign(name)
        expect(keys.unsign(signed)).toBe(name)
        expect(keys.unsign(name)).toBeNull()
        if (tail !== '') expect(keys.unsign(signed + tail)).toBeNull()
      }),
    )
  })

  it('is no key of a form, and a key of a form is nothing that was signed', () => {
    expect(keys.read(keys.sign('1.nonce'), 'token f', AT)).toBeNull()
    expect(keys.unsign(keys.issue('token f', AT))).toBeNull()
  })
})

describe('how often somebody answers', () => {
  const MINUTE = 60_000

  it('is enough after eight times in ten minutes, for each visitor and each form by itself', () => {
    const pace = formPace()
    const times = Array.from({ length: 10 }, (_each, i) => pace.isTooMany('ada', 'f', AT + i * 1000))
    expect(times.indexOf(true)).toBe(8)
    expect(pace.isTooMany('bo', 'f', AT)).toBe(false)
    expect(pace.isTooMany('ada', 'g', AT)).toBe(false)
  })

  it('is forgotten after ten minutes', () => {
    const pace = formPace()
    for (let i = 0; i < 8; i++) pace.isTooMany('ada', 'f', AT)
    expect(pace.isTooMany('ada', 'f', AT + 9 * MINUTE)).toBe(true)
    expect(pace.isTooMany('ada', 'f', AT + 20 * MINUTE)).toBe(false)
  })

  it('has a bound of its own where one is given', () => {
    const pace = formPace()
    const times = Array.from({ length: 4 }, () => pace.isTooMany('ada', 'files', AT, 2))
    expect(times).toEqual([false, false, true, true])
  })

  it('remembers a bounded number of visitors, the latest', () => {
    const pace = formPace()
    for (let i = 0; i < 60_000; i++) pace.isTooMany(String(i), 'f', AT)
    for (let i = 0; i < 8; i++) pace.isTooMany('59999', 'f', AT)
    expect(pace.isTooMany('59999', 'f', AT)).toBe(true)
  })
})
