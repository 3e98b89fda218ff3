import { z } from 'zod'
import { endpoint, line, requiredLine } from '../api/index.ts'
import { headingForm, readTable } from '../plan/index.ts'
import { destination } from '../routing/index.ts'
import { emptyContent, pageFaults, type PageContent } from './content.ts'
import { contactName } from './draw/people.ts'
import { languageTag } from '../fields/index.ts'
import { newPart, type PartOf } from './parts.ts'

/** As many people as a file of one team has. */
export const TEAM_MAX = 500

/** What is read of each person of a team, with the headings that mean it; the first is its own. */
const COLUMNS = {
  given: ['given name', 'first name', 'forename', 'vorname', 'voornaam', 'fornavn'],
  family: ['family name', 'last name', 'surname', 'name', 'nachname', 'achternaam', 'efternavn'],
  role: ['role', 'job title', 'title', 'position', 'funktion', 'functie', 'stilling'],
  organisation: ['organisation', 'organization', 'company', 'firma', 'bedrijf', 'virksomhed'],
  phone: ['telephone', 'phone', 'work phone', 'telefon', 'telefoon', 'tel'],
  mobile: ['mobile', 'cell', 'mobile phone', 'mobil', 'mobiel', 'handy'],
  email: ['e-mail', 'email', 'mail', 'e-mail address', 'email address'],
  website: ['website', 'web', 'url', 'homepage'],
  street: ['street', 'address', 'straße', 'strasse', 'straat', 'vej'],
  postcode: ['postcode', 'zip', 'postal code', 'plz', 'postnummer'],
  town: ['town', 'city', 'ort', 'stadt', 'plaats', 'by'],
  country: ['country', 'land'],
  note: ['note', 'notes', 'notiz', 'bemerkung'],
} as const
export type TeamColumn = keyof typeof COLUMNS
const NAMES = Object.keys(COLUMNS) as readonly TeamColumn[]

const cell = line('the cell', 1000)
/** One person, as a line of the file says. */
export const teamMember = z.strictObject(
  Object.fromEntries(NAMES.map((name) => [name, cell])) as Record<TeamColumn, typeof cell>,
)
export type TeamMember = z.infer<typeof teamMember>

const NOBODY = Object.fromEntries(NAMES.map((name) => [name, ''])) as Record<TeamColumn, string>

/** What a file says of a team. */
export interface Team {
  readonly members: readonly TeamMember[]
  /** Headings that mean nothing here: what stands below them is left out. */
  readonly unknown: readonly string[]
  /** What is wrong, by the line of the file. */
  readonly faults: readonly { readonly line: number; readonly sentence: string }[]
}

/**
 * Reads a team from delimited text (RFC 4180) with a line of headings; their order and case do not matter.
 *
 * @throws UnreadableTable where a quotation mark is never closed
 */
export function readTeam(text: string): Team {
  const [headings = [], ...lines] = readTable(text).rows
  const columns = headings.map((heading) => {
    const form = headingForm(heading)
    return NAMES.find((name) => COLUMNS[name].some((known) => headingForm(known) === form)) ?? null
  })
  const unknown = headings.filter((heading, i) => columns[i] === null && heading.trim() !== '')
  if (!columns.includes('given') && !columns.includes('family') && !columns.includes('organisation'))
    return {
      members: [],
      unknown,
      faults: [
        {
          line: 1,
          sentence:
            'The first line names no column with names. Begin the file with headings such as: given name, family name, role, telephone, e-mail.',
        },
      ],
    }
  const members = lines.slice(0, TEAM_MAX).map((cells): TeamMember => {
    const member = { ...NOBODY }
    columns.forEach((name, i) => {
      if (name !== null && member[name] === '') member[name] = (cells[i] ?? '').replace(/\s+/g, ' ').trim()
    })
    return member
  })
  const faults = members.flatMap((member, i) =>
    pageFaults(memberContent(member, 'en', 'UTC')).map(({ sentence }) => ({ line: i + 2, sentence })),
  )
  if (lines.length > TEAM_MAX)
    faults.push({ line: TEAM_MAX + 2, sentence: `A file has at most ${String(TEAM_MAX)} people. Split it.` })
  if (lines.length === 0) faults.push({ line: 2, sentence: 'There is nobody below the headings.' })
  return { members, unknown, faults }
}

const words = (text: string, language: string) => (text === '' ? {} : { [language]: text })

function contactOf(member: TeamMember, language: string): PartOf<'contact'> {
  const { given, family, role, organisation, phone, mobile, email, website, note } = member
  const { street, postcode, town, country } = member
  const hasAddress = [street, postcode, town, country].some((each) => each !== '')
  return {
    ...newPart('contact', 'contact'),
    given,
    family,
    role: words(role, language),
    organisation,
    phones: [
      ...(phone === '' ? [] : [{ kind: 'work' as const, number: phone }]),
      ...(mobile === '' ? [] : [{ kind: 'cell' as const, number: mobile }]),
    ],
    emails: email === '' ? [] : [{ address: email }],
    addresses: hasAddress ? [{ street, postcode, town, country }] : [],
    sites: website === '' ? [] : [{ name: '', address: website }],
    note: words(note, language),
  }
}

/** The card of one person of a team, as a page. */
export function memberContent(member: TeamMember, language: string, zone: string): PageContent {
  const contact = contactOf(member, language)
  const title = contactName(contact).slice(0, 80)
  return { ...emptyContent(language, zone), title: words(title, language), parts: [contact] }
}

/** What a person's page and piece are called. */
export const memberName = (member: TeamMember): string => contactName(contactOf(member, 'en')).slice(0, 100)

export const newTeam = z.strictObject({
  campaignId: z.int(),
  members: z.array(teamMember).min(1, 'There is nobody in the file.').max(TEAM_MAX),
  language: languageTag,
  medium: requiredLine('a medium', 100),
  source: requiredLine('a source', 100),
  /** Where a code leads should its page not be shown. */
  destination,
})

export const teamApi = {
  create: endpoint({
    method: 'POST',
    path: '/teams',
    room: 'pages',
    access: { right: 'edit', things: { campaign: 'body.campaignId' } },
    status: 201,
    summary: 'Make a contact card and a code for each person of a team, published at once',
    body: newTeam,
    answer: z.object({ pages: z.int(), codes: z.int() }),
  }),
}
