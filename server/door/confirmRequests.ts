import type { IncomingMessage, ServerResponse } from 'node:http'
import { escapeMarkup } from '@flimbo/core/fields'
import { fill } from '@flimbo/core/words'
import type { Confirming, ConfirmLinks } from '../leads/index.ts'
import type { PageShelf } from '../pages/index.ts'
import type { ScanWriter } from '../scans/index.ts'
import { document, type Rendered } from './pages.ts'
import { send } from './respond.ts'
import { voiceFor, voiceIn, type Voice } from './voice.ts'

export interface ConfirmParts {
  readonly confirmLinks: ConfirmLinks
  readonly confirmingOf: (leadId: number) => Confirming | undefined
  readonly shelf: Pick<PageShelf, 'worn'>
  readonly writer: Pick<ScanWriter, 'confirm'>
}

/** A page that says what became of a link; `body` is markup. */
const pageOf = (title: string, body: string, voice: Voice, status = 200): Rendered => ({
  status,
  language: voice.language,
  hidesReferrer: true,
  ...document(title, body, voice),
})

const paragraph = (text: string) => `<p>${escapeMarkup(text)}</p>`

/** Only people press a button: what looks through mails for harm follows their links as well, and confirms nothing. */
function askPage({ email }: Confirming, voice: Voice): Rendered {
  const { confirmSubject, confirmAsk, confirmButton } = voice.words.mails
  const ask = fill(escapeMarkup(confirmAsk), { mail: `<b dir="ltr">${escapeMarkup(email)}</b>` })
  const form = `<form method="post"><button>${escapeMarkup(confirmButton)}</button></form>`
  return pageOf(confirmSubject, `<p>${ask}</p>${form}`, voice)
}

/** Answers who follows the link that confirms their mail address, and who then does. */
export async function answerConfirmation(
  { confirmLinks, confirmingOf, shelf, writer }: ConfirmParts,
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
): Promise<void> {
  request.resume()
  const leadId = confirmLinks.leadOf(path)
  const of = leadId === null ? undefined : confirmingOf(leadId)
  const now = Date.now()
  // They read it in the language they answered in; a made-up link in what their phone asks for.
  const voice = of ? voiceIn([of.language], await shelf.worn(of.campaignId)) : voiceFor(request)
  const { confirmed, confirmOver, confirmSubject } = voice.words.mails
  const { thanksTitle } = voice.words.forms
  const isOver = !of || of.email === '' || of.confirmBy === null || of.confirmBy < now
  if (of && of.confirmedAt !== null) send(response, pageOf(thanksTitle, paragraph(confirmed), voice))
  else if (isOver || leadId === null)
    send(response, pageOf(confirmSubject, paragraph(confirmOver), voice, 410))
  else if (request.method !== 'POST') send(response, askPage(of, voice))
  else {
    await writer.confirm({ leadId, at: now })
    send(response, pageOf(thanksTitle, paragraph(confirmed), voice))
  }
}
