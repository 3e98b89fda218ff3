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
  busy: { status: 503, title: 'One moment, please', text: 'This short link cannot be followed just now. Please try again in a minute.' },
  method: { status: 405, title: 'Only for reading', text: 'Short links can only be opened. Please open this address in a browser.' },
  malformed: { status: 400, title: 'This could not be read', text: 'The address or the request is damaged. Please scan the code again.' },
} as const satisfies Record<string, Page>
export type PageName = keyof typeof PAGES

const STYLE = `:root{color-scheme:light dark}body{margin:0;min-height:100vh;display:grid;place-items:center;background:#FAF8F3;color:#1F2A30;font:18px/1.5 "Atkinson Hyperlegible Next",system-ui,sans-serif}main{max-width:30rem;margin:1rem;padding:1.5rem;border:1px solid #DDD8CC;border-left:4px solid #0C5A66;border-radius:6px;background:#fff}h1{font-size:1.4rem;margin:0 0 .5rem}p{margin:0}@media(prefers-color-scheme:dark){body{background:#14191C;color:#E9E6DE}main{background:#1C2327;border-color:#3A4348;border-left-color:#6CC0CC}}`

function html({ title, text }: Page): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>${title}</title><style>${STYLE}</style></head><body><main><h1>${title}</h1><p>${text}</p></main></body></html>`
}

export interface Rendered { readonly status: number; readonly body: Buffer }

/** Every page, ready to send. */
export const RENDERED = Object.fromEntries(
  Object.entries(PAGES).map(([name, page]) => [name, { status: page.status, body: Buffer.from(html(page)) }]),
) as Record<PageName, Rendered>

const MARKUP: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' }

/** The page for unknown short links in a domain's own words. */
export function unknownPage(text: string): Rendered {
  const { status, title } = PAGES.unknown
  return { status, body: Buffer.from(html({ status, title, text: text.replace(/[&<>"']/g, (sign) => MARKUP[sign] ?? sign) })) }
}

export const ROBOTS = 'User-agent: *\nDisallow: /\n'
