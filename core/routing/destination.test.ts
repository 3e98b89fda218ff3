import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ADDRESS_MAX } from '../api/index.ts'
import { readDestination } from './index.ts'

const DOORS = ['http://localhost:4001', 'https://go.saltmarsh.example']
const faultOf = (typed: string) => {
  const reading = readDestination(typed, DOORS)
  return reading.ok ? null : reading.fault
}

describe('a site without its scheme', () => {
  it.each([
    ['shop.example/sale', 'https://shop.example/sale'],
    [' shop.example ', 'https://shop.example'],
    ['shop.example:8080/a?b=c#d', 'https://shop.example:8080/a?b=c#d'],
    ['müller.example/ä', 'https://müller.example/ä'],
    ['go.shop.example/{country}', 'https://go.shop.example/{country}'],
  ])('%s is taken as %s, and says so', (typed, text) => {
    expect(readDestination(typed)).toMatchObject({ ok: true, text, assumed: true })
  })
  it.each(['https://shop.example', 'http://shop.example/a.b'])('%s is taken as it stands', (typed) => {
    expect(readDestination(typed)).toMatchObject({ ok: true, text: typed, assumed: false })
  })
  it('leads back to the front door in any spelling of its address', () => {
    for (const typed of [
      'http://[::ffff:127.0.0.1]:4001/x',
      'http://[::7f00:1]:4001',
      'http://0.0.0.0:4001',
      'http://a.localhost:4001',
      'localhost.:4001',
    ]) {
      expect([typed, readDestination(typed, ['http://localhost:4001'])]).toMatchObject([typed, { ok: false }])
    }
    expect(readDestination('http://[::ffff:203.0.113.7]/x', ['http://203.0.113.7'])).toMatchObject({
      ok: false,
      fault: 'front-door',
    })
  })
})

describe('reading a destination', () => {
  it.each([
    ['https://saltmarsh.example/timetable?lang=de#today'],
    ['http://saltmarsh.example:8080'],
    ['HTTPS://SALTMARSH.EXAMPLE'],
    ['https://müller.example/größe'],
    ['https://192.0.2.7/x'],
    ['https://[2001:db8::1]/x'],
    ['  https://saltmarsh.example  '],
    [`https://saltmarsh.example/${'x'.repeat(ADDRESS_MAX - 26)}`],
    // The front door's host on another port is another site.
    ['http://localhost:4002/at/saltmarsh.example'],
    ['https://other.saltmarsh.example'],
  ])('takes %s', (typed) => {
    expect(faultOf(typed)).toBeNull()
  })

  it.each([
    ['', 'empty'],
    ['   ', 'empty'],
    ['anna@saltmarsh.example', 'not-an-address'],
    ['.example', 'not-an-address'],
    ['12.5', 'not-an-address'],
    ['timetable', 'not-an-address'],
    ['https://exa mple.example', 'not-an-address'],
    ['https://saltmarsh.example:99999', 'not-an-address'],
    ['javascript:alert(1)', 'not-http'],
    ['mailto:anna@saltmarsh.example', 'not-http'],
    ['ftp://saltmarsh.example', 'not-http'],
    ['data:text/html,x', 'not-http'],
    ['https://', 'no-host'],
    ['https:///timetable', 'no-host'],
    ['https:timetable', 'no-host'],
    ['https://?x=1', 'no-host'],
    ['https://saltmarsh.example/\nx', 'control-characters'],
    ['java\tscript:alert(1)', 'control-characters'],
    ['https://saltmarsh.example/\u0000', 'control-characters'],
    ['https://saltmarsh.example/\u0085', 'control-characters'],
    [`https://saltmarsh.example/${'x'.repeat(ADDRESS_MAX)}`, 'too-long'],
    ['http://localhost:4001/ABC234', 'front-door'],
    ['http://127.0.0.1:4001/ABC234', 'front-door'],
    ['http://[::1]:4001/', 'front-door'],
    ['HTTPS://GO.Saltmarsh.Example/ABC234', 'front-door'],
    ['https://go.saltmarsh.example:443/', 'front-door'],
    ['https://go.saltmarsh.example./x', 'front-door'],
  ])('refuses %j as %s', (typed, fault) => {
    expect(faultOf(typed)).toBe(fault)
  })

  it('says each refusal in a sentence', () => {
    const reading = readDestination('ftp://saltmarsh.example')
    expect(reading).toMatchObject({ ok: false, sentence: expect.stringMatching(/^[A-Z].*\.$/) as string })
  })

  it('never throws, and takes only what a browser can open', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: 'binary' }),
          fc.webUrl(),
          fc.string().map((rest) => `https://${rest}`),
        ),
        (typed) => {
          const reading = readDestination(typed, DOORS)
          if (reading.ok) expect(['http:', 'https:']).toContain(new URL(reading.url.href).protocol)
        },
      ),
    )
  })
})
