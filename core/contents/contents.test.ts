import fc from 'fast-check'
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import {
  content,
  contentCosts,
  contentFaults,
  isCreditorReference,
  isIban,
  readContent,
  writeContent,
} from './index.ts'
import type { Content } from './index.ts'

const of = (values: object): Content => content.parse(values)
const faults = (values: object) => contentFaults(of(values)).map(({ field }) => field)

describe('a content is written as its standard has it', () => {
  it.each<[source: string, values: object, text: string]>([
    // The examples of the RFCs themselves.
    ['RFC 3966, section 6', { kind: 'phone', number: '+1-201-555-0123' }, 'tel:+12015550123'],
    ['RFC 5724, section 2.4', { kind: 'sms', number: '+15105550101' }, 'sms:+15105550101'],
    [
      'RFC 5724, section 2.4',
      { kind: 'sms', number: '+15105550101', body: 'hello there' },
      'sms:+15105550101?body=hello%20there',
    ],
    [
      'RFC 6068, section 2',
      { kind: 'email', to: 'gorby%kremvax@example.com' },
      'mailto:gorby%25kremvax@example.com',
    ],
    [
      'RFC 6068, section 6.1',
      { kind: 'email', to: 'Mike&family@example.org' },
      'mailto:Mike%26family@example.org',
    ],
    [
      'RFC 6068, section 6.2',
      { kind: 'email', to: '"not@me"@example.org' },
      'mailto:%22not%40me%22@example.org',
    ],
    [
      'RFC 6068, section 6.1',
      { kind: 'email', to: 'infobot@example.com', subject: 'current-issue' },
      'mailto:infobot@example.com?subject=current-issue',
    ],
    [
      'RFC 6068, section 6.1',
      { kind: 'email', to: 'infobot@example.com', body: 'send current-issue\nsend index' },
      'mailto:infobot@example.com?body=send%20current-issue%0D%0Asend%20index',
    ],
    [
      'RFC 6068, section 6.3',
      { kind: 'email', to: 'user@example.org', subject: 'café' },
      'mailto:user@example.org?subject=caf%C3%A9',
    ],
    [
      'RFC 5870, section 1',
      { kind: 'place', latitude: 13.4125, longitude: 103.8667 },
      'geo:13.4125,103.8667',
    ],
    [
      'WPA3 specification, from memory',
      { kind: 'wifi', security: 'WPA', name: 'name', password: 'secret', hidden: true },
      'WIFI:T:WPA;S:name;P:secret;H:true;;',
    ],
    [
      'WPA3 specification, from memory',
      { kind: 'wifi', security: 'nopass', name: 'a;b,c:d"e\\f' },
      'WIFI:T:nopass;S:a\\;b\\,c\\:d\\"e\\\\f;;',
    ],
    [
      'BIP 21, examples',
      {
        kind: 'payment',
        scheme: 'bitcoin',
        address: '175tWpb8K1S7NmH4Zx6rewF9WQrcZv245W',
        amount: '50',
        label: 'Luke-Jr',
        message: 'Donation for project xyz',
      },
      'bitcoin:175tWpb8K1S7NmH4Zx6rewF9WQrcZv245W?amount=50&label=Luke-Jr&message=Donation%20for%20project%20xyz',
    ],
    [
      'EPC069-12, the form from memory',
      {
        kind: 'transfer',
        name: 'Saltmarsh Line',
        iban: 'DE89 3704 0044 0532 0130 00',
        cents: 1230,
        purpose: 'char',
        remittance: 'Season pass',
      },
      'BCD\n002\n1\nSCT\n\nSaltmarsh Line\nDE89370400440532013000\nEUR12.3\nCHAR\n\nSeason pass',
    ],
    [
      'RFC 3986',
      { kind: 'address', address: ' https://saltmarsh.example/a?b=c#d ' },
      'https://saltmarsh.example/a?b=c#d',
    ],
  ])('%s: %j', (_, values, text) => {
    expect(writeContent(of(values))).toBe(text)
    expect(writeContent(readContent(text))).toBe(text)
  })

  it('a contact, which an independent reader takes for what it is', () => {
    const values = {
      kind: 'contact',
      given: 'Ida',
      family: 'Møller, van der',
      organisation: 'Saltmarsh Line; Ferries',
      phone: '+49 4931 555 0142',
      mobile: '+49 (0)151 555 0142',
      street: 'Pier 1, West gate',
      postcode: '26506',
      town: 'Norden',
      note: 'Line one\nline two',
    }
    for (const version of ['3.0', '4.0']) {
      const text = writeContent(of({ ...values, version }))
      const card = new ICAL.Component(ICAL.parse(text) as unknown[])
      expect(card.getFirstPropertyValue('version')).toBe(version)
      expect(card.getFirstPropertyValue('fn')).toBe('Ida Møller, van der')
      expect(card.getFirstPropertyValue('n')).toEqual(['Møller, van der', 'Ida', '', '', ''])
      expect(card.getAllProperties('tel').map((each) => each.getFirstValue())).toEqual([
        '+4949315550142',
        '+491515550142',
      ])
      expect(card.getFirstPropertyValue('note')).toBe('Line one\nline two')
      expect(readContent(text)).toMatchObject({
        ...values,
        version,
        phone: '+4949315550142',
        mobile: '+491515550142',
      })
    }
  })

  it('reads the contact of RFC 6350’s author, from section 8, shortened', () => {
    const text = [
      'BEGIN:VCARD',
      'VERSION:4.0',
      'FN:Simon Perreault',
      'N:Perreault;Simon;;;ing. jr,M.Sc.',
      'ORG;TYPE=work:Viagenie',
      'ADR;TYPE=work:;Suite D2-630;2875 Laurier;Quebec;QC;G1V 2M2;Canada',
      'TEL;VALUE=uri;TYPE=cell:tel:+1-418-262-6501',
      'EMAIL;TYPE=work:simon.perreault@viagenie.ca',
      'URL;TYPE=home:http://nomis80.org',
      'END:VCARD',
    ].join('\r\n')
    expect(readContent(text)).toMatchObject({
      kind: 'contact',
      given: 'Simon',
      family: 'Perreault',
      organisation: 'Viagenie',
      town: 'Quebec',
      postcode: 'G1V 2M2',
      country: 'Canada',
      email: 'simon.perreault@viagenie.ca',
    })
  })

  it('an event in the zone it takes place in, in summer and in winter, and over whole days', () => {
    const event = { kind: 'event', title: 'Seal watching; day one', zone: 'Europe/Berlin' }
    const read = (more: object) => {
      const vevent = new ICAL.Component(
        ICAL.parse(writeContent(of({ ...event, ...more }))) as unknown[],
      ).getFirstSubcomponent('vevent')
      return ['dtstart', 'dtend', 'summary', 'uid'].map((name) => String(vevent?.getFirstPropertyValue(name)))
    }
    const [start, end, summary, uid] = read({ start: '2026-07-03T10:00', end: '2026-07-03T12:30' })
    expect([start, end, summary]).toEqual([
      '2026-07-03T08:00:00Z',
      '2026-07-03T10:30:00Z',
      'Seal watching; day one',
    ])
    expect(uid).toMatch(/^[0-9a-f]{8}@flimbo$/)
    expect(read({ start: '2026-12-03T10:00', end: '2026-12-03T12:30' })[0]).toBe('2026-12-03T09:00:00Z')
    // The end of whole days is the day after the last (RFC 5545, section 3.6.1).
    expect(read({ start: '2026-07-03T00:00', end: '2026-07-04T00:00', allDay: true }).slice(0, 2)).toEqual([
      '2026-07-03',
      '2026-07-05',
    ])
    expect(
      readContent(
        writeContent(of({ ...event, start: '2026-07-03T00:00', end: '2026-07-04T00:00', allDay: true })),
      ),
    ).toMatchObject({
      start: '2026-07-03T00:00',
      end: '2026-07-04T00:00',
      allDay: true,
    })
  })

  it('reads the event of RFC 5545, section 3.6.1', () => {
    const text = [
      'BEGIN:VCALENDAR',
      'BEGIN:VEVENT',
      'UID:19970901T130000Z-123401@example.com',
      'DTSTAMP:19970901T130000Z',
      'DTSTART:19970903T163000Z',
      'DTEND:19970903T190000Z',
      'SUMMARY:Annual Employee Review',
      'CLASS:PRIVATE',
      'CATEGORIES:BUSINESS,HUMAN RESOURCES',
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n')
    expect(readContent(text)).toMatchObject({
      kind: 'event',
      title: 'Annual Employee Review',
      start: '1997-09-03T16:30',
      end: '1997-09-03T19:00',
    })
  })

  it('what only looks like something is the text it is', () => {
    for (const text of [
      'BEGIN:VCARD',
      'geo:here',
      'geo:95,200',
      'BEGIN:VCALENDAR\nnonsense',
      'mailto:%E0%A4%A',
    ])
      expect(readContent(text)).toEqual({ kind: 'text', text })
  })
})

describe('what is written is read back as it was entered', () => {
  const word = fc.string({
    unit: fc.constantFrom(
      'a',
      'B',
      '7',
      'ä',
      '漢',
      ';',
      ':',
      ',',
      '"',
      '\\',
      '%',
      '&',
      '?',
      '=',
      '#',
      '+',
      '-',
      '(',
      ' ',
    ),
    maxLength: 30,
  })
  const tidy = word.map((text) => text.trim())
  const number = fc.stringMatching(/^\+[1-9]\d{5,12}$/)
  const named = tidy.filter((text) => text !== '')
  const contents: fc.Arbitrary<object> = fc.oneof(
    fc.record({ kind: fc.constant('phone'), number }),
    fc.record({ kind: fc.constant('sms'), number, body: word }),
    fc.record({
      kind: fc.constant('email'),
      to: fc.stringMatching(/^[a-z.%&+'!]{1,12}@[a-z]{1,8}\.example$/),
      subject: word,
      body: word,
    }),
    fc.record({
      kind: fc.constant('place'),
      latitude: fc.integer({ min: -89_999_999, max: 89_999_999 }).map((n) => n / 1e6),
      longitude: fc.integer({ min: -179_999_999, max: 179_999_999 }).map((n) => n / 1e6),
      label: word.filter((text) => text === '' || text.trim() !== ''),
    }),
    fc.record({
      kind: fc.constant('contact'),
      version: fc.constantFrom('3.0', '4.0'),
      given: tidy,
      family: named,
      organisation: tidy,
      role: tidy,
      street: tidy,
      town: tidy,
      note: tidy,
      mobile: fc.option(number, { nil: '' }),
      phone: fc.option(number, { nil: '' }),
    }),
    fc.record({
      kind: fc.constant('event'),
      title: named,
      place: tidy,
      description: tidy,
      zone: fc.constant('UTC'),
      start: fc.constantFrom('2026-03-29T01:30', '2026-07-03T10:00'),
      end: fc.constantFrom('2026-07-03T12:00', '2199-12-31T23:59'),
    }),
    fc.record({
      kind: fc.constant('wifi'),
      security: fc.constant('WPA'),
      name: named,
      password: fc.stringMatching(/^[!-~]{8,63}$/),
      hidden: fc.boolean(),
    }),
    fc.record({
      kind: fc.constant('transfer'),
      name: named,
      iban: fc.constant('GB82WEST12345698765432'),
      cents: fc.option(fc.integer({ min: 1, max: 99_999_999_999 })),
      remittance: tidy,
    }),
    fc.record({
      kind: fc.constant('payment'),
      scheme: fc.constant('bitcoin'),
      address: fc.stringMatching(/^[A-Za-z0-9]{26,40}$/),
      label: word,
      message: word,
    }),
  )

  it('whatever signs are in it', () => {
    fc.assert(
      fc.property(contents, (values) => {
        const entered = of(values)
        fc.pre(contentFaults(entered).length === 0)
        const text = writeContent(entered)
        expect(readContent(text)).toEqual(entered)
        expect(writeContent(readContent(text))).toBe(text)
      }),
      { numRuns: 500 },
    )
  })

  it('and anything at all is read as something', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          contents.map((values) => writeContent(of(values)).slice(0, 40)),
        ),
        (text) => {
          expect(content.safeParse(readContent(text)).success).toBe(true)
        },
      ),
    )
  })
})

describe('what is wrong with a content', () => {
  it.each<[values: object, fields: string[]]>([
    [{ kind: 'address', address: 'saltmarsh' }, ['address']],
    [{ kind: 'text', text: ' ' }, ['text']],
    [{ kind: 'phone', number: '04931 555 0142' }, ['number']],
    [{ kind: 'phone', number: '0049 4931 555 0142' }, []],
    [{ kind: 'phone', number: '+49 4931 CALL' }, ['number']],
    [{ kind: 'email', to: 'info@saltmarsh' }, ['to']],
    [{ kind: 'email', to: 'info@saltmarsh.example, b@saltmarsh.example' }, ['to']],
    [{ kind: 'place', latitude: 90, longitude: 8 }, ['longitude']],
    [{ kind: 'contact', note: 'nobody' }, ['family']],
    [{ kind: 'contact', organisation: 'Saltmarsh Line', web: 'www' }, ['web']],
    [
      { kind: 'event', title: '', zone: 'UTC', start: '2026-07-03T10:00', end: '2026-07-03T10:00' },
      ['title', 'end'],
    ],
    [
      {
        kind: 'event',
        title: 'x',
        zone: 'UTC',
        allDay: true,
        start: '2026-07-03T10:00',
        end: '2026-07-03T00:00',
      },
      [],
    ],
    [{ kind: 'wifi', security: 'WPA', name: 'ä'.repeat(17), password: 'seven77' }, ['name', 'password']],
    [{ kind: 'wifi', security: 'WPA', name: 'Pier', password: 'f'.repeat(64) }, []],
    [{ kind: 'wifi', security: 'nopass', name: 'Pier' }, []],
    [{ kind: 'transfer', name: 'A', iban: 'DE89 3704 0044 0532 0130 01', cents: 0 }, ['iban', 'cents']],
    [
      {
        kind: 'transfer',
        name: 'A',
        iban: 'GB82 WEST 1234 5698 7654 32',
        reference: 'RF18539007547034',
        remittance: 'x',
      },
      ['remittance'],
    ],
    [
      {
        kind: 'transfer',
        name: 'A',
        iban: 'GB82 WEST 1234 5698 7654 32',
        bic: 'ABC',
        purpose: 'CHARITY',
        reference: 'RF00',
      },
      ['bic', 'purpose', 'reference'],
    ],
    [{ kind: 'payment', scheme: 'bitcoin', address: '', amount: '1,5' }, ['address', 'amount']],
  ])('%j', (values, fields) => {
    expect(faults(values)).toEqual(fields)
  })

  // ISO 13616's own examples, from memory; any slip of one digit or swap of two neighbours is noticed (ISO 7064).
  it('IBANs and creditor references tell by their check digits', () => {
    const sound = ['GB82 WEST 1234 5698 7654 32', 'DE89 3704 0044 0532 0130 00']
    expect(sound.map(isIban)).toEqual([true, true])
    expect(isCreditorReference('RF18 5390 0754 7034')).toBe(true)
    const digits = (sound[1] ?? '').replace(/ /g, '')
    fc.assert(
      fc.property(fc.integer({ min: 4, max: 20 }), fc.integer({ min: 1, max: 9 }), (at, by) => {
        const other = String((Number(digits[at]) + by) % 10)
        expect(isIban(digits.slice(0, at) + other + digits.slice(at + 1))).toBe(false)
        const swapped =
          digits.slice(0, at) + (digits[at + 1] ?? '') + (digits[at] ?? '') + digits.slice(at + 2)
        expect(isIban(swapped)).toBe(digits[at] === digits[at + 1])
      }),
    )
  })
})

describe('what fields cost', () => {
  it('is told in bytes and modules, the dearest first', () => {
    const { bytes, side, fields } = contentCosts(
      of({ kind: 'contact', family: 'Møller', note: 'x'.repeat(100), web: 'https://saltmarsh.example' }),
      'M',
    )
    expect([bytes, side]).toEqual([200, 57])
    expect(fields.map(({ field }) => field)).toEqual(['note', 'web', 'family'])
    expect(fields[0]).toEqual({ field: 'note', bytes: 107, modules: 16 })
  })

  it('is none where a content has nothing to leave out, and unknown where no symbol holds it', () => {
    expect(contentCosts(of({ kind: 'text', text: 'a' }), 'M').fields).toEqual([])
    const long = contentCosts(of({ kind: 'email', to: 'a@b.example', body: 'x'.repeat(4000) }), 'H')
    expect([long.side, long.fields[0]?.modules]).toEqual([null, null])
  })
})
