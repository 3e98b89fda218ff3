import { html, textMarkup, trusted, type RichText, type Run } from '../fields/index.ts'
import { isRightToLeft } from '../words/index.ts'

/** What a mail says, before it is written as text and as HTML. */
export interface MailContent {
  /** Its language (BCP 47). */
  readonly language: string
  readonly subject: string
  readonly blocks: RichText
  /** The one thing to be done, where there is one. */
  readonly action?: { readonly label: string; readonly address: string }
  /** Rows of a name and what it holds, such as answers. */
  readonly rows?: readonly (readonly [name: string, value: string])[]
  /** What stands below in small letters: why it was sent, and until when it is good. */
  readonly notes: readonly string[]
}

export interface WrittenMail {
  readonly subject: string
  readonly text: string
  readonly html: string
}

const INK = '#1f2a30'
const QUIET = '#5b676d'
const WORKING = '#0c5a66'

/** A subject is one line (RFC 5322, section 2.2): whatever was answered into it begins no other header. */
const oneLine = (text: string) => text.replace(/\s+/g, ' ').trim()

/** Runs as text: a link has its address behind it, unless that is what it says. */
const runsText = (runs: readonly Run[]): string =>
  runs.map(({ text, link }) => (link === undefined || link === text ? text : `${text} (${link})`)).join('')

function blocksText(blocks: RichText): string[] {
  return blocks.map((block) =>
    block.kind === 'paragraph'
      ? runsText(block.runs)
      : block.items
          .map((item, i) => `${block.isNumbered ? `${String(i + 1)}.` : '-'} ${runsText(item)}`)
          .join('\n'),
  )
}

/** A mail as text and as HTML, both from one source. The HTML loads nothing. */
export function writeMail({ language, subject, blocks, action, rows = [], notes }: MailContent): WrittenMail {
  const text = [
    ...blocksText(blocks),
    ...(rows.length === 0 ? [] : [rows.map(([name, value]) => `${name}: ${value}`).join('\n')]),
    ...(action ? [`${action.label}:\n${action.address}`] : []),
    ...(notes.length === 0 ? [] : [`-- \n${notes.join('\n')}`]),
  ].join('\n\n')
  const line = oneLine(subject)
  const { markup } = html`<!doctype html>
    <html lang="${language}" dir="${isRightToLeft(language) ? 'rtl' : 'ltr'}">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>${line}</title>
      </head>
      <body style="margin:0;padding:24px 16px;color:${INK};background:#ffffff;font:16px/1.5 sans-serif">
        <div style="max-width:560px;margin:0 auto">
          ${trusted(textMarkup(blocks, (address) => address))}
          ${
            rows.length > 0 &&
            html`<table style="border-collapse:collapse;width:100%">
              ${rows.map(
                ([name, value]) =>
                  html`<tr>
                    <th
                      scope="row"
                      style="text-align:start;vertical-align:top;font-weight:normal;color:${QUIET};padding:4px 16px 4px 0"
                    >
                      ${name}
                    </th>
                    <td style="padding:4px 0;white-space:pre-line">${value}</td>
                  </tr>`,
              )}
            </table>`
          }
          ${
            action !== undefined &&
            html`<p>
              <a
                href="${action.address}"
                style="display:inline-block;padding:10px 18px;border-radius:6px;color:#ffffff;background:${WORKING};text-decoration:none"
                >${action.label}</a
              >
            </p>`
          }
          ${notes.map((note) => html`<p style="color:${QUIET};font-size:14px">${note}</p>`)}
        </div>
      </body>
    </html>`
  return { subject: line, text: `${text}\n`, html: markup }
}
