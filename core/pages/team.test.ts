import { describe, expect, it } from 'vitest'
import { contactCard, memberContent, memberName, pageFaults, readTeam, TEAM_MAX } from './index.ts'

const FILE =
  'Vorname;Nachname;Funktion;Telefon;E-Mail;PLZ;Ort;Lieblingsboot\r\nJördis;Vantooft;"Hafenbüro; Ost";+49 4931 555 0142;j@saltmarsh.example;26506;Nordend;Möwe\r\n;Saltmarsh Line;;;;;;\r\n'

describe('a team from a file', () => {
  const team = readTeam(FILE)

  it('is read by its headings, in whatever language and order; what means nothing is told of', () => {
    expect(team.faults).toEqual([])
    expect(team.unknown).toEqual(['Lieblingsboot'])
    expect(team.members.map(memberName)).toEqual(['Jördis Vantooft', 'Saltmarsh Line'])
    expect(team.members[0]).toMatchObject({
      role: 'Hafenbüro; Ost',
      phone: '+49 4931 555 0142',
      town: 'Nordend',
    })
  })

  it('makes a card of each that phones take', () => {
    const [member] = team.members
    if (!member) throw new Error('nobody')
    const content = memberContent(member, 'de', 'Europe/Berlin')
    expect(pageFaults(content)).toEqual([])
    const [card] = content.parts
    if (card?.kind !== 'contact') throw new Error('no contact')
    const reader = { language: 'de', languages: ['de'] }
    expect(contactCard(card, '4.0', reader)).toContain('TITLE:Hafenbüro; Ost\r\nTEL;TYPE=WORK:+4949315550142')
  })

  it.each([
    ['boat,berth\nMöwe,3', 1, 'names no column with names'],
    ['given name,telephone\nAnna,12', 2, 'Begin with + and the country’s number'],
    ['given name,e-mail\nAnna,anna(at)saltmarsh', 2, 'not a whole mail address'],
    ['given name,role\n,Captain', 2, 'Give a name, or an organisation'],
    ['given name', 2, 'nobody below the headings'],
    [`given name\n${'Anna\n'.repeat(TEAM_MAX + 1)}`, TEAM_MAX + 2, 'at most 500 people'],
  ])('says what is wrong, and in which line: %j', (text, line, sentence) => {
    expect(readTeam(text).faults).toContainEqual({
      line,
      sentence: expect.stringContaining(sentence) as string,
    })
  })
})
