/** A page on the way as a phone without script reads it: what it loads, and where it goes on to by itself. */
export interface LightPage {
  readonly loads: readonly URL[]
  readonly next: URL
}

const SIGNS: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', '#39': "'" }
const plain = (text: string) =>
  text.replace(/&(amp|lt|gt|quot|#39);/g, (_all, name: string) => SIGNS[name] ?? '')

/** Reads a light page of the front door; null where a page is none. */
export function lightPageIn(html: string): LightPage | null {
  const next = /<meta http-equiv="refresh" content="0;url=([^"]+)">/.exec(html)?.[1]
  if (next === undefined) return null
  return {
    next: new URL(plain(next)),
    loads: [...html.matchAll(/<(?:link rel="preload" as="image" href|script\b[^>]* src)="([^"]+)"/g)].map(
      ([, src = '']) => new URL(plain(src)),
    ),
  }
}

/** What a page sends on that asks whether tags may fire; null where it asks no such thing. */
export function consentFormIn(html: string): string | null {
  return /<input type="hidden" name="onward" value="([^"]+)">/.exec(html)?.[1] ?? null
}
