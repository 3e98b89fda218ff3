import { saidRich, said, textFromPlain } from '@flimbo/core/fields'
import { fillAnswers, fillRich } from '@flimbo/core/forms'
import { writeMail } from '@flimbo/core/mail'
import type { PartOf } from '@flimbo/core/pages'
import { fill, wordsFor } from '@flimbo/core/words'
import { tables, type Database, type LeadRow } from '../database/index.ts'
import type { Addresses } from '../line/index.ts'
import type { Letter, WriteLetter } from '../mail/index.ts'
import type { ConfirmLinks } from './confirmLinks.ts'
import { answersIn, shownForms } from './formOf.ts'

interface Parts {
  readonly database: Pick<Database, 'read'>
  readonly addresses: Addresses
  readonly links: ConfirmLinks
}

/** A lead with the form it answered, as it was shown then. */
interface Answered {
  readonly lead: LeadRow
  readonly form: PartOf<'form'>
  readonly languages: readonly string[]
  readonly pageTitle: string
  readonly zone: string
  readonly workspaceName: string
}

/** Their address as they wrote it: what leads are joined by is in small letters. */
function addressOf({ answers, email }: LeadRow, { questions }: PartOf<'form'>): string {
  const written = questions
    .filter(({ kind }) => kind === 'mail')
    .map(({ id }) => answers[id])
    .find((answer) => typeof answer === 'string' && answer.toLowerCase() === email)
  return typeof written === 'string' ? written : email
}

/** Writes the mails that follow from leads: to whoever answered, in the language they answered in, and to who is told. */
export function leadLetters({ database: { read }, addresses, links }: Parts): {
  confirm: WriteLetter
  answer: WriteLetter
  lead: WriteLetter
} {
  const formOf = shownForms(read)

  async function answered(leadId: number | null): Promise<Answered | null> {
    const lead = leadId === null ? null : await read.findOneBy(tables.leads, { id: leadId })
    if (!lead) return null
    const revision = await read.findOneBy(tables.pageRevisions, { id: lead.pageRevisionId })
    const form = revision?.content.parts.find(({ id }) => id === lead.part)
    const workspace = await read.findOneBy(tables.workspaces, { id: lead.workspaceId })
    if (!revision || form?.kind !== 'form' || !workspace) return null
    const { languages, title, zone } = revision.content
    const { language } = lead
    return {
      lead,
      form,
      languages,
      pageTitle: said({ language, languages }, title).text,
      zone,
      workspaceName: workspace.name,
    }
  }

  const toAnswerer = ({
    lead,
    workspaceName,
    form,
  }: Answered): Omit<Letter, 'subject' | 'text' | 'html'> => ({
    to: { name: '', address: addressOf(lead, form) },
    fromName: workspaceName,
    replyTo: form.replyTo.trim(),
  })

  /** Says nothing of what was answered: whoever typed somebody else's address writes them nothing. */
  function confirmLetter(of: Answered): Letter | null {
    const { lead, form, languages, pageTitle, zone } = of
    if (lead.confirmBy === null || lead.confirmedAt !== null || lead.email === '') return null
    const { language, words } = wordsFor([lead.language])
    const own = saidRich({ language: lead.language, languages }, form.confirmText)
    const page = { page: pageTitle }
    const time = new Intl.DateTimeFormat(lead.language, {
      dateStyle: 'long',
      timeStyle: 'short',
      timeZone: zone,
    }).format(lead.confirmBy)
    const written = writeMail({
      language: own.blocks.length === 0 ? language : own.lang || lead.language,
      subject: words.mails.confirmSubject,
      blocks: own.blocks.length === 0 ? textFromPlain(fill(words.mails.confirmText, page)) : own.blocks,
      action: { label: words.mails.confirmButton, address: addresses.door + links.pathOf(lead.id) },
      notes: [fill(words.mails.confirmUntil, { time }), fill(words.mails.why, page)],
    })
    return { ...toAnswerer(of), ...written }
  }

  function answerLetter(of: Answered): Letter | null {
    const { lead, form, languages, pageTitle } = of
    if (lead.email === '') return null
    const { words } = wordsFor([lead.language])
    const reading = { language: lead.language, languages }
    const around = { ...reading, words: words.forms }
    const { blocks, lang } = saidRich(reading, form.mailText)
    const subject = said(reading, form.mailSubject).text
    const written = writeMail({
      language: lang || lead.language,
      subject:
        subject === ''
          ? words.mails.answerSubject
          : fillAnswers(subject, form.questions, lead.answers, around),
      blocks: fillRich(blocks, form.questions, lead.answers, around),
      notes: [fill(words.mails.why, { page: pageTitle })],
    })
    return { ...toAnswerer(of), ...written }
  }

  return {
    async confirm({ leadId }) {
      const of = await answered(leadId)
      return of && confirmLetter(of)
    },
    async answer({ leadId }) {
      const of = await answered(leadId)
      return of && answerLetter(of)
    },
    async lead({ leadId, personId, payload }) {
      const lead = leadId === null ? null : await read.findOneBy(tables.leads, { id: leadId })
      const person = personId === null ? null : await read.findOneBy(tables.people, { id: personId })
      if (!lead || !person) return null
      const [form, code, page, campaign] = await Promise.all([
        formOf(lead.pageRevisionId, lead.part),
        read.findOneBy(tables.codes, { id: lead.codeId }),
        read.findOneBy(tables.pages, { id: lead.pageId }),
        read.findOneBy(tables.campaigns, { id: lead.campaignId }),
      ])
      const pageName = page?.name ?? ''
      const piece = code?.name ?? ''
      const { isLast = false } = (payload ?? {}) as { isLast?: boolean }
      const where = lead.city === '' ? '' : ` from ${lead.city}`
      const written = writeMail({
        language: 'en',
        subject: `New lead on “${pageName}”${lead.title === '' ? '' : `: ${lead.title}`}`,
        blocks: textFromPlain(
          `Somebody${where} answered the form on “${pageName}”. They came by the piece “${piece}” of “${campaign?.name ?? ''}”.`,
        ),
        rows: answersIn(lead, form).map(({ title, text }) => [title, text] as const),
        action: {
          label: 'Open in Leads',
          address: `${addresses.office}/campaigns/${String(lead.campaignId)}/leads?lead=${String(lead.id)}`,
        },
        notes: [
          ...(lead.confirmBy !== null && lead.confirmedAt === null
            ? ['The mail address was not confirmed yet.']
            : []),
          ...(isLast ? ['Many answers came within an hour: the next ones are only in the inbox.'] : []),
          'You receive this mail because you watch these leads in Flimbo.',
        ],
      })
      return { ...written, to: { name: person.name, address: person.email }, fromName: 'Flimbo' }
    },
  }
}
