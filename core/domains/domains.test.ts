import { describe, expect, it } from 'vitest'
import { canonicalHost, hostOf, judgeRecords, wantedRecords } from './index.ts'

describe('host names', () => {
  // Domain to ASCII, WHATWG URL Standard, section 3.3; the names are those of its tests (web-platform-tests, url/resources/toascii.json), as remembered.
  it.each([
    ['QR.Saltmarsh.example', 'qr.saltmarsh.example'],
    ['faß.example', 'xn--fa-hia.example'],
    ['☃.example', 'xn--n3h.example'],
    ['ｇｏ.example', 'go.example'],
    ['a.b.example.', 'a.b.example'],
  ])('%s is %s', (typed, host) => {
    expect(canonicalHost(typed)).toBe(host)
  })
  it.each([
    '',
    'example',
    'https://a.example',
    'a.example/x',
    'a.example:80',
    'user@a.example',
    '127.0.0.1',
    '[::1]',
    '-a.example',
    'a-.example',
    'a..example',
    'a b.example',
    `${'a'.repeat(64)}.example`,
    `${'a.'.repeat(130)}example`,
    'a_b.example',
    'a.1',
  ])('%j is none', (typed) => {
    expect(canonicalHost(typed)).toBeNull()
  })
  it.each([
    ['GO.example:4001', 'go.example'],
    ['go.example.', 'go.example'],
    ['[::1]:80', '[::1]'],
    ['', ''],
  ])('a Host of %j is %j', (field, host) => {
    expect(hostOf(field)).toBe(host)
  })
})

describe('the records of a domain', () => {
  const wanted = wantedRecords('qr.saltmarsh.example', 'go.saltmarsh.example', 'abc')
  it.each([
    [['GO.saltmarsh.example.'], ['flimbo=abc'], true, 'Both records'],
    [['go.saltmarsh.example'], ['v=spf1 -all', 'flimbo=abc'], true, 'Both records'],
    [[], ['flimbo=abc'], false, 'no CNAME record of qr.saltmarsh.example'],
    [['elsewhere.example'], [], false, 'leads to elsewhere.example instead of go.saltmarsh.example'],
    [['go.saltmarsh.example'], ['flimbo=xyz'], false, 'says something else than flimbo=abc'],
    [null, [], false, 'did not answer'],
  ])('%j and %j: ready %s', (cname, txt, ready, sentence) => {
    expect(judgeRecords(wanted, { cname, txt })).toEqual({
      ready,
      sentence: expect.stringContaining(sentence) as string,
    })
  })
})
