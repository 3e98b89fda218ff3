import { escapeMarkup } from './escapeMarkup.ts'

const STYLE = `:root{color-scheme:light dark}body{margin:0;min-height:100vh;display:grid;place-items:center;background:#FAF8F3;color:#1F2A30;font:18px/1.5 "Atkinson Hyperlegible Next",system-ui,sans-serif}main{max-width:30rem;margin:1rem;padding:1.5rem;border:1px solid #DDD8CC;border-inline-start:4px solid #0C5A66;border-radius:6px;background:#fff;overflow-wrap:anywhere}h1{font-size:1.4rem;margin:0 0 .5rem}p{margin:0;white-space:pre-line}p+p{margin-top:.75rem}a{color:#0C5A66}ul.links{list-style:none;margin:1rem 0 0;padding:0;display:grid;gap:.75rem}ul.links a{display:block;padding:.7rem 1rem;border:1px solid #0C5A66;border-radius:6px;text-decoration:none;min-height:24px}form{margin:1rem 0 0;display:grid;gap:.75rem}input[type=password]{font:inherit;padding:.6rem;border:1px solid #5B676D;border-radius:6px;width:100%;box-sizing:border-box;background:inherit;color:inherit}button{font:inherit;padding:.7rem 1rem;border:0;border-radius:6px;background:#0C5A66;color:#fff;min-height:48px}button.quiet{background:none;color:inherit;border:1px solid #5B676D}label.tick{display:flex;gap:.6rem;align-items:start}label.tick input{width:1.4rem;height:1.4rem;margin:0}.fault{color:#A9432F;font-weight:700;margin:.75rem 0 0}@media(prefers-color-scheme:dark){body{background:#14191C;color:#E9E6DE}main{background:#1C2327;border-color:#3A4348;border-inline-start-color:#6CC0CC}a{color:#6CC0CC}ul.links a{border-color:#6CC0CC}button{background:#6CC0CC;color:#10181b}button.quiet{background:none;color:inherit}.fault{color:#F2A38F}}`

/** The language of a document (BCP 47), and which way it is written. */
export interface Writing {
  readonly language: string
  readonly direction: 'ltr' | 'rtl'
}
const ENGLISH: Writing = { language: 'en', direction: 'ltr' }

/** A whole document as phones are shown it, readable without script; `body` and `head` are markup. */
export function publicDocument(
  title: string,
  body: string,
  head = '',
  { language, direction }: Writing = ENGLISH,
): string {
  const name = escapeMarkup(title)
  return `<!doctype html><html lang="${language}"${direction === 'rtl' ? ' dir="rtl"' : ''}><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>${name}</title><style>${STYLE}</style>${head}</head><body><main><h1>${name}</h1>${body}</main></body></html>`
}
