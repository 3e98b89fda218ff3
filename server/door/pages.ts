/** A small page of the front door: plain words, no script, readable on any phone. */
interface Page {
  readonly status: number
  readonly title: string
  readonly text: string
}

export const PAGES = {
  home: { status: 200, title: 'Short links', text: 'This address serves short links. Scan a code, or type a short link to its end, to be taken to its page.' },
  unknown: { status: 404, title: 'No such short link', text: 'Nothing is kept under this address. Please check the letters and digits, or ask whoever gave it to you.' },
  paused: { status: 404, title: 'Resting for now', text: 'This code is paused at the moment. Please try again later, or ask whoever put it up.' },
  deleted: { status: 410, title: 'No longer in use', text: 'This code has been withdrawn and leads nowhere any more. Please ask whoever put it up.' },
  early: { status: 404, title: 'Not yet', text: 'What this code leads to has not begun yet. Please come back a little later.' },
  over: { status: 410, title: 'This is over', text: 'What this code led to has ended. Please ask whoever put it up what there is now.' },
  full: { status: 410, title: 'All taken', text: 'There was a fixed number of these, and all of them are taken. Please ask whoever put this code up.' },
  'full-today': { status: 404, title: 'All taken for today', text: 'Today’s share is taken. Please try again tomorrow.' },
  busy: { status: 503, title: 'One moment, please', text: 'This short link cannot be followed just now. Please try again in a minute.' },
  method: { status: 405, title: 'Only for reading', text: 'Short links can only be opened. Please open this address in a browser.' },
  malformed: { status: 400, title: 'This could not be read', text: 'The address or the request is damaged. Please scan the code again.' },
} as const satisfies Record<string, Page>
export type PageName = keyof typeof PAGES

const STYLE = `:root{color-scheme:light dark}body{margin:0;min-height:100vh;display:grid;place-items:center;background:#FAF8F3;color:#1F2A30;font:18px/1.5 "Atkinson Hyperlegible Next",system-ui,sans-serif}main{max-width:30rem;margin:1rem;padding:1.5rem;border:1px solid #DDD8CC;border-left:4px solid #0C5A66;border-radius:6px;background:#fff}h1{font-size:1.4rem;margin:0 0 .5rem}p{margin:0;white-space:pre-line}p+p{margin-top:.75rem}a{color:#0C5A66}form{margin:1rem 0 0;display:grid;gap:.75rem}input[type=password]{font:inherit;padding:.6rem;border:1px solid #5B676D;border-radius:6px;width:100%;box-sizing:border-box;background:inherit;color:inherit}button{font:inherit;padding:.7rem 1rem;border:0;border-radius:6px;background:#0C5A66;color:#fff;min-height:48px}button.quiet{background:none;color:inherit;border:1px solid #5B676D}label.tick{display:flex;gap:.6rem;align-items:start}label.tick input{width:1.4rem;height:1.4rem;margin:0}.fault{color:#A9432F;font-weight:700;margin:.75rem 0 0}@media(prefers-color-scheme:dark){body{background:#14191C;color:#E9E6DE}main{background:#1C2327;border-color:#3A4348;border-left-color:#6CC0CC}a{color:#6CC0CC}button{background:#6CC0CC;color:#10181b}button.quiet{background:none;color:inherit}.fault{color:#F2A38F}}`

/** Text where markup is read: every sign that could be markup is written as a reference. */
export function escapeMarkup(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => MARKUP[sign] ?? sign)
}
const MARKUP: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' }

/** A whole document; `body` and `head` are markup. */
export function document(title: string, body: string, head = ''): Buffer {
  const name = escapeMarkup(title)
  return Buffer.from(`<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>${name}</title><style>${STYLE}</style>${head}</head><body><main><h1>${name}</h1>${body}</main></body></html>`)
}

export interface Rendered {
  readonly status: number
  readonly body: Buffer
  /** What it may do beyond standing there: further directives of its Content-Security-Policy. */
  readonly policy?: readonly string[]
  /** Whether nobody is told that the visitor comes from here: its address may carry what is meant for this page alone. */
  readonly hidesReferrer?: true
}

/** Every page, ready to send. */
export const RENDERED = Object.fromEntries(
  Object.entries(PAGES).map(([name, { status, title, text }]) => [name, { status, body: document(title, `<p>${text}</p>`) }]),
) as Record<PageName, Rendered>

/** The page for unknown short links in a domain's own words. */
export function unknownPage(text: string): Rendered {
  const { status, title } = PAGES.unknown
  return { status, body: document(title, `<p>${escapeMarkup(text)}</p>`) }
}

/** A message a manager wrote. */
export function messagePage(title: string, text: string): Rendered {
  return { status: 200, body: document(title, `<p>${escapeMarkup(text)}</p>`) }
}

export const ROBOTS = 'User-agent: *\nDisallow: /\n'
