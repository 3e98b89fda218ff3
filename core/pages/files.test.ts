import ICAL from 'ical.js'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { zoneOffsetMs } from '../time/index.ts'
import { clockChanges, contactCard, eventCalendar, newPart, type PartOf } from './index.ts'

const READER = { language: 'de', languages: ['de', 'en'] }
const CONTACT: PartOf<'contact'> = {
  ...newPart('contact', 'c'),
  given: 'Jördis; Anna',
  family: 'Vantooft, von',
  role: { en: 'Harbour\\master' },
  organisation: 'Saltmarsh Line',
  phones: [
    { kind: 'work', number: '+49 (0) 4931 555-0142' },
    { kind: 'cell', number: '+49 170 5550143' },
  ],
  emails: [{ address: 'j.vantooft@saltmarsh.example' }],
  addresses: [{ street: 'Am Hafen 1', postcode: '26506', town: 'Nordend', country: 'Germany' }],
  sites: [{ name: 'Website', address: 'saltmarsh.example/crew?a=1;b=2' }],
  note: { de: 'Zeile eins\nZeile zwei' },
}
const read = (text: string) => new ICAL.Component(ICAL.parse(text) as unknown[])
const values = (card: ICAL.Component, name: string) =>
  card.getAllProperties(name).map((property) => property.getFirstValue())

describe.each(['3.0', '4.0'] as const)('a contact as a vCard %s, read by ical.js', (version) => {
  const photo = { type: 'image/jpeg', base64: Buffer.from('a picture').toString('base64') } as const
  const card = contactCard(CONTACT, version, READER, photo)

  it('says field by field what was entered', () => {
    const parsed = read(card)
    expect(values(parsed, 'version')).toEqual([version])
    expect(values(parsed, 'n')).toEqual([['Vantooft, von', 'Jördis; Anna', '', '', '']])
    expect(values(parsed, 'fn')).toEqual(['Jördis; Anna Vantooft, von'])
    expect(values(parsed, 'org').flat()).toEqual(['Saltmarsh Line'])
    // In the other language, where the one that is read has none.
    expect(values(parsed, 'title')).toEqual(['Harbour\\master'])
    expect(values(parsed, 'tel')).toEqual(['+4949315550142', '+491705550143'])
    expect(parsed.getAllProperties('tel').map((tel) => tel.getParameter('type'))).toEqual(['WORK', 'CELL'])
    expect(values(parsed, 'email')).toEqual(['j.vantooft@saltmarsh.example'])
    expect(values(parsed, 'adr')).toEqual([['', '', 'Am Hafen 1', 'Nordend', '', '26506', 'Germany']])
    expect(values(parsed, 'url')).toEqual(['https://saltmarsh.example/crew?a=1;b=2'])
    expect(values(parsed, 'note')).toEqual(['Zeile eins\nZeile zwei'])
    const [picture = ''] = values(parsed, 'photo').map(String)
    expect(Buffer.from(picture.replace(/^data:image\/jpeg;base64,/, ''), 'base64').toString()).toBe(
      'a picture',
    )
  })

  it('has no line of more than 75 octets, and none that is cut within a sign', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (note) => {
        const written = contactCard(
          // The sign that stands for what was cut would say so of itself.
          { ...CONTACT, note: { de: note.replace(/[\p{Cc}\ufffd]/gu, '') } },
          version,
          READER,
        )
        for (const line of written.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
        expect(written).not.toContain('\ufffd')
      }),
    )
  })
})

const FACTS = {
  zone: 'Europe/Berlin',
  uid: 'page-1-e@go.example',
  changedAt: Date.parse('2026-07-01T10:00Z'),
  ...READER,
}
const EVENT: PartOf<'event'> = {
  ...newPart('event', 'e'),
  label: { de: 'Seehunde, ganz nah; "leise"' },
  place: { de: 'Anleger Ost' },
  description: { de: 'Zeile eins\nZeile zwei' },
  from: '2026-10-25T01:30',
  upTo: '2026-10-25T04:00',
}
const zoned = (event: PartOf<'event'>, zone: string) => {
  const parsed = read(eventCalendar(event, { ...FACTS, zone }) ?? '')
  return new ICAL.Event(parsed.getFirstSubcomponent('vevent') ?? undefined)
}

describe('an event as a calendar, read by ical.js (RFC 5545)', () => {
  it('says field by field what was entered, its times by the zone that is described with it', () => {
    const event = zoned(EVENT, 'Europe/Berlin')
    expect([event.summary, event.location, event.description, event.uid]).toEqual([
      'Seehunde, ganz nah; "leise"',
      'Anleger Ost',
      'Zeile eins\nZeile zwei',
      'page-1-e@go.example',
    ])
    expect(event.startDate.toUnixTime() * 1000).toBe(Date.parse('2026-10-25T01:30+02:00'))
    expect(event.endDate.toUnixTime() * 1000).toBe(Date.parse('2026-10-25T04:00+01:00'))
  })

  it('of whole days ends on the day after the last', () => {
    const event = zoned(
      { ...EVENT, isWholeDay: true, from: '2026-07-03T00:00', upTo: '2026-07-04T00:00' },
      'UTC',
    )
    expect([event.startDate.isDate, event.startDate.toString(), event.endDate.toString()]).toEqual([
      true,
      '2026-07-03',
      '2026-07-05',
    ])
  })

  it('is at the same moment in every zone, whatever its clocks do about it', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          'Europe/Berlin',
          'America/St_Johns',
          'Australia/Lord_Howe',
          'Asia/Kathmandu',
          'Pacific/Apia',
        ),
        fc.integer({ min: 0, max: 365 * 24 }),
        (zone, hours) => {
          const at = Date.parse('2026-01-01T00:00Z') + hours * 3_600_000
          const local = new Date(at + zoneOffsetMs(zone, at)).toISOString().slice(0, 16)
          // An hour that comes twice is the first of the two.
          fc.pre(zoneOffsetMs(zone, at) === zoneOffsetMs(zone, at - 3_600_000))
          const event = zoned({ ...EVENT, from: local, upTo: local }, zone)
          expect(new Date(event.startDate.toUnixTime() * 1000)).toEqual(new Date(at))
        },
      ),
    )
  })

  it('knows when clocks change, as they do in Berlin (IANA tz)', () => {
    const changes = clockChanges('Europe/Berlin', Date.parse('2026-01-01'), Date.parse('2027-01-01'))
    expect(changes.map(({ at }) => new Date(at).toISOString())).toEqual([
      '2026-03-29T01:00:00.000Z',
      '2026-10-25T01:00:00.000Z',
    ])
  })

  it('is none where it has no moments', () => {
    expect(eventCalendar({ ...EVENT, upTo: '' }, FACTS)).toBeNull()
  })
})

// RFC 2426 section 5, RFC 6350 section 8 and RFC 5545 section 4, as far as they are from memory: what is read of them is
// what they say, and so what is read of ours can be trusted.
it('ical.js reads the examples of the RFCs', () => {
  const meeting =
    'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//xyz Corp//NONSGML PDA Calendar Version 1.0//EN\r\nBEGIN:VEVENT\r\nDTSTAMP:19960704T120000Z\r\nUID:uid1@example.com\r\nORGANIZER:mailto:jsmith@example.com\r\nDTSTART:19960918T143000Z\r\nDTEND:19960920T220000Z\r\nSTATUS:CONFIRMED\r\nCATEGORIES:CONFERENCE\r\nSUMMARY:Networld+Interop Conference\r\nDESCRIPTION:Networld+Interop Conference\r\n  and Exhibit\\nAtlanta World Congress Center\\n\r\n Atlanta\\, Georgia\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n'
  const event = new ICAL.Event(read(meeting).getFirstSubcomponent('vevent') ?? undefined)
  expect(event.description).toBe(
    'Networld+Interop Conference and Exhibit\nAtlanta World Congress Center\nAtlanta, Georgia',
  )
  const card =
    'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Simon Perreault\r\nN:Perreault;Simon;;;ing. jr,M.Sc.\r\nTEL;VALUE=uri;TYPE="work,voice";PREF=1:tel:+1-418-656-9254;ext=102\r\nEND:VCARD\r\n'
  expect(values(read(card), 'n')).toEqual([['Perreault', 'Simon', '', '', ['ing. jr', 'M.Sc.']]])
})
