import { html, textMarkup, trusted, type Markup } from '../fields/index.ts'
import type { ReportDocument, ReportPart } from './document.ts'
import type { DrawnLook } from './look.ts'

/** What a page of a report is drawn with. */
export interface PageDrawing {
  readonly look: DrawnLook
  /** A chart as markup (SVG), without anything that a strict policy keeps out. */
  readonly chart: (part: Extract<ReportPart, { kind: 'chart' }>) => Markup
  /** Where the logo is, as a `data:` address; null for none. */
  readonly logo: string | null
  /** Where the fonts are; empty for those that the reader has. */
  readonly fonts: string
}

const FACE = 'Atkinson Hyperlegible Next Variable'

/** The style sheet of a report: for a screen of any width, and for paper. */
export function reportCss({ accent }: Pick<DrawnLook, 'accent'>, fonts: string): string {
  const faces = ['latin', 'latin-ext']
    .map(
      (range) =>
        `@font-face{font-family:"${FACE}";src:url(${fonts}${range}.woff2) format("woff2");font-weight:200 800;font-display:swap;unicode-range:${RANGES[range as keyof typeof RANGES]}}`,
    )
    .join('')
  return `${fonts === '' ? '' : faces}:root{color-scheme:light}
*{box-sizing:border-box}
body{margin:0;background:#FAF8F3;color:#1F2A30;font:16px/1.5 "${FACE}",system-ui,sans-serif;font-variant-numeric:tabular-nums}
main{max-width:760px;margin:0 auto;padding:32px 40px;background:#fff;border:1px solid #DDD8CC}
header{border-bottom:3px solid ${accent};margin-bottom:24px;padding-bottom:12px;display:flex;gap:16px;align-items:end}
header div{flex:1;min-width:0}
header img{max-height:64px;max-width:160px}
h1{font-size:1.75rem;line-height:1.2;margin:0;color:${accent};overflow-wrap:anywhere}
h2{font-size:1.2rem;line-height:1.3;margin:32px 0 4px;color:${accent};overflow-wrap:anywhere}
p{margin:8px 0;overflow-wrap:anywhere}
.quiet{color:#5B676D;font-size:.875rem;margin:0}
.figures{display:flex;flex-wrap:wrap;gap:4px 40px;margin:12px 0;padding:0}
.figures div{margin:0}
.figures dt,.figures .beside{color:#5B676D;font-size:.875rem}
.figures dd{margin:0}
.figures b{display:block;font-size:1.5rem;line-height:1.25}
figure{margin:12px 0}
svg{display:block;width:100%;height:auto;font-variant-numeric:normal}
.scroll{overflow-x:auto}
table{border-collapse:collapse;width:100%;font-size:.875rem;margin:12px 0}
th,td{text-align:start;padding:6px 12px 6px 0;border-bottom:1px solid #DDD8CC;vertical-align:top}
th{font-weight:600}
thead th{color:#5B676D}
.n{text-align:end}
caption{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}
.fault{border-inline-start:3px solid #D9541E;padding-inline-start:12px}
footer{border-top:1px solid #DDD8CC;margin-top:40px;padding-top:12px}
nav{max-width:760px;margin:0 auto;padding:12px 40px;display:flex;gap:24px;flex-wrap:wrap}
a{color:${accent}}
input,button{font:inherit;padding:8px 12px;border:1px solid #5B676D;border-radius:6px;background:#fff;color:inherit}
input{width:100%;max-width:360px;margin-top:4px}
button{background:${accent};border-color:${accent};color:#fff;cursor:pointer}
:focus-visible{outline:2px solid ${accent};outline-offset:2px}
@media (max-width:600px){main{padding:20px 16px;border:0}nav{padding:12px 16px}figure{min-width:600px}}
@media print{body{background:#fff}main{max-width:none;border:0;padding:0}nav{display:none}h2{break-after:avoid}figure,tr,.figures{break-inside:avoid}}`
}

const RANGES = {
  latin:
    'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215',
  'latin-ext':
    'U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+1E00-1E9F,U+1EF2-1EFF,U+20A0-20AB,U+20AD-20C0',
} as const

function partMarkup(part: ReportPart, { chart }: PageDrawing): Markup {
  switch (part.kind) {
    case 'heading':
      return html`<h2>${part.text}</h2>`
    case 'words':
      return trusted(textMarkup(part.text, (address) => address))
    case 'about':
      return html`${part.lines.map((line) => html`<p class="quiet">${line}</p>`)}`
    case 'figures':
      return html`<dl class="figures">
        ${part.figures.map(
          ({ label, value, beside }) =>
            html`<div>
              <dt>${label}</dt>
              <dd><b>${value}</b> <span class="beside">${beside}</span></dd>
            </div>`,
        )}
      </dl>`
    case 'chart':
      return html`<div class="scroll" tabindex="0">
        <figure role="img" aria-label="${part.said}">${chart(part)}</figure>
      </div>`
    case 'list':
      return html`${part.items.map((item) => html`<p class="quiet">${item}</p>`)}`
    case 'fault':
      return html`<p class="fault">${part.sentence}</p>`
    case 'table':
      return tableMarkup(part)
  }
}

function tableMarkup({
  caption,
  headings,
  figuresFrom,
  rows,
  more,
}: Extract<ReportPart, { kind: 'table' }>): Markup {
  const column = (at: number) => (at >= figuresFrom ? 'n' : '')
  return html`<div class="scroll" tabindex="0" role="region" aria-label="${caption}">
      <table>
        <caption>
          ${caption}
        </caption>
        <thead>
          <tr>
            ${headings.map((heading, at) => html`<th scope="col" class="${column(at)}">${heading}</th>`)}
          </tr>
        </thead>
        <tbody>
          ${rows.map(
            (cells) =>
              html`<tr>
                ${cells.map((cell, at) =>
                  at === 0
                    ? html`<th scope="row" class="${column(at)}">${cell}</th>`
                    : html`<td class="${column(at)}">${cell}</td>`,
                )}
              </tr>`,
          )}
        </tbody>
      </table>
    </div>
    ${more !== '' && html`<p class="quiet">${more}</p>`}`
}

/** What stands in the body of a page: all of a report, readable without script. */
function reportBody(report: ReportDocument, drawing: PageDrawing): Markup {
  const { title, subtitle, parts, method } = report
  return html`<main>
    <header>
      <div>
        <h1>${title}</h1>
        ${subtitle !== '' && html`<p class="quiet">${subtitle}</p>`}
      </div>
      ${drawing.logo !== null && html`<img src="${drawing.logo}" alt="" />`}
    </header>
    ${parts.map((part) => partMarkup(part, drawing))}
    <footer>${method.map((sentence) => html`<p class="quiet">${sentence}</p>`)}</footer>
  </main>`
}

/** A whole document; `before` stands above the report, such as links to its files. */
export function reportPage(
  report: ReportDocument,
  drawing: PageDrawing,
  { nonce, before = html`` }: { readonly nonce: string; readonly before?: Markup },
): string {
  const css = reportCss(drawing.look, drawing.fonts)
  return html`<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width,initial-scale=1" />
        <meta name="robots" content="noindex" />
        <title>${report.title}</title>
        <style nonce="${nonce}">
          ${trusted(css)}
        </style>
      </head>
      <body>
        ${before}${reportBody(report, drawing)}
      </body>
    </html>`.markup
}
