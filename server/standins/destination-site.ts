import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import { readUrl } from '@flimbo/core/api'
import { escapeMarkup as escape } from '@flimbo/core/fields'
import { collector, isCollectorHost, type Collector } from './collector.ts'

/** Sites under `.example` (RFC 2606) exist on no network: this one answers for all of them. */
export function isStandInHost(hostname: string): boolean {
  return hostname === 'example' || hostname.endsWith('.example')
}

/** Where a page of an `.example` site is found on the stand-in: the host is the first part of the path. */
export function standInAddress(port: number, target: URL): string {
  return `http://localhost:${String(port)}/at/${target.hostname}${target.pathname}${target.search}${target.hash}`
}

/** The other way round: the page that an address of the stand-in means; any other address is what it is. */
export function standInTarget(address: URL): URL {
  const under = underHost(address.pathname)
  return under && isStandInHost(under.host)
    ? new URL(`https://${under.host}${under.path}${address.search}${address.hash}`)
    : address
}

/** Host and path of a page whose host stands in the path. */
function underHost(pathname: string): { host: string; path: string } | null {
  const [, host, path = '/'] = /^\/at\/([^/]+)(\/.*)?$/.exec(pathname) ?? []
  return host === undefined ? null : { host, path }
}

const TITLES: readonly [RegExp, string, string][] = [
  [/winter/, 'Winter sailings', 'Boats to Lark Holm on Saturdays and Sundays, weather permitting.'],
  [/timetable|fahrplan/, 'Summer timetable', 'Five boats a day to Lark Holm, Tern Sands and Grey Skerry.'],
  [/seal/, 'Seal watching', 'Ninety minutes along the Grey Skerry banks, twelve seats a boat.'],
  [/pass/, 'Season pass', 'All three islands, all summer, for one price.'],
  [/tide/, 'Tide tables', 'High and low water for the three islands.'],
]

const STYLE =
  'body{font:17px/1.5 system-ui,sans-serif;margin:0;color:#16313a;background:#eef5f4}header{background:#174a5a;color:#fff;padding:1rem 1.25rem}main{padding:1.25rem;max-width:40rem}h1{font-size:1.5rem;margin:0}h2{font-size:1.05rem}table{border-collapse:collapse;width:100%;background:#fff}td{border:1px solid #c6d5d6;padding:.35rem .6rem;font-size:.85rem;word-break:break-all}'

/** The page of an address: what it is about, and what the visit brought with it. */
function page(host: string, address: URL, script: string): string {
  const [, title, text] = TITLES.find(([path]) => path.test(address.pathname)) ?? [
    null,
    'Saltmarsh Line',
    'Small boats to three islands.',
  ]
  const rows = [...address.searchParams]
    .map(([name, value]) => `<tr><td>${escape(name)}</td><td>${escape(value)}</td></tr>`)
    .join('')
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${escape(title)}</title><style>${STYLE}</style>${script === '' ? '' : `<script async src="${escape(script)}"></script>`}</head><body><header>${escape(host)}</header><main><h1>${escape(title)}</h1><p>${escape(text)}</p><h2>This visit came with</h2>${rows ? `<table><tbody>${rows}</tbody></table>` : '<p>no values at all</p>'}${shopOf(address)}</main></body></html>`
}

/** What can be done on a page that sells something: an order ends on a page of thanks. */
function shopOf({ pathname }: URL): string {
  if (/thanks$/.test(pathname)) return '<p role="status">Thank you for your order.</p>'
  if (!/pass/.test(pathname)) return ''
  const order = 'flimboGoals.push({goal:"season-pass",value:39,currency:"EUR",order:String(Date.now())})'
  return `<p><button data-goal="seats">See free seats</button> <button onclick='${escape(order)};history.pushState(null,"",location.pathname+"/thanks")'>Order for €39</button></p>`
}

/** Things that go wrong at real sites, by the first part of the path, so that checks find them: null where all is well. */
function mishapOf({ pathname, search }: URL, base: string): ((response: ServerResponse) => void) | null {
  const [, kind, rest = ''] = /^\/(old|moved|loop|gone|broken|slow)(\/.*)?$/.exec(pathname) ?? []
  const redirect = (to: string) => (response: ServerResponse) => {
    response.writeHead(302, { Location: base + to, 'Content-Length': '0' }).end()
  }
  switch (kind) {
    case 'old':
      return redirect(rest || '/')
    case 'moved':
      return redirect(`${rest || '/'}${search}`)
    case 'loop':
      return redirect(`${pathname}${search}`)
    case 'gone':
      return (response) => {
        response
          .writeHead(404, { 'Content-Type': 'text/plain; charset=utf-8' })
          .end('There is no such page.\n')
      }
    case 'broken':
      return (response) => {
        response.writeHead(500, { 'Content-Type': 'text/plain; charset=utf-8' }).end('Something broke.\n')
      }
    case 'slow':
      return () => undefined
    case undefined:
      return null
    default:
      return null
  }
}

function answer(
  collecting: Collector,
  script: () => string,
  request: IncomingMessage,
  response: ServerResponse,
): void {
  // A path such as `//` would be read as the name of a host: it is put behind one instead.
  const address = readUrl(`http://stand-in.example${request.url ?? '/'}`)
  if (!address) {
    response.writeHead(400, { 'Content-Type': 'text/plain; charset=utf-8' }).end('This is no address.\n')
    return
  }
  const under = underHost(address.pathname)
  const host = under?.host ?? request.headers.host?.replace(/:\d+$/, '') ?? ''
  if (!isStandInHost(host)) {
    response
      .writeHead(404, { 'Content-Type': 'text/plain; charset=utf-8' })
      .end('This stand-in answers for .example sites only.\n')
    return
  }
  if (under) address.pathname = under.path
  const mishap = mishapOf(address, under ? `/at/${host}` : '')
  if (mishap) {
    mishap(response)
    return
  }
  if (isCollectorHost(host)) {
    collecting.take(request, response, host, address)
    return
  }
  response
    .writeHead(200, { 'Content-Type': 'text/html; charset=utf-8', 'Cache-Control': 'no-store' })
    // In the frame of the phone stand-in nothing may run.
    .end(page(host, address, request.headers['sec-fetch-dest'] === 'iframe' ? '' : script()))
}

/**
 * A web server for the sample company's pages, so that redirects land somewhere with no network; and for the collector its visits are measured by.
 *
 * @param script where its pages find the script they report goals with; empty for none
 */
export function destinationSite(collecting = collector(), script = () => ''): Server {
  return createServer((request, response) => {
    answer(collecting, script, request, response)
  })
}
