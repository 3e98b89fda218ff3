import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type BrowserContext } from 'playwright-core'

/** Debian's Chromium, kept from asking for anything outside of this machine. */
const FLAGS = [
  '--headless',
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

export interface Look {
  readonly width?: number
  readonly height?: number
  readonly scheme?: 'light' | 'dark'
  /** What it says it is; Chromium's own name for itself, which tells that nobody sits before it, where left out. */
  readonly userAgent?: string
  readonly script?: boolean
  /** What its reader reads (BCP 47). */
  readonly locale?: string
}

/** A browser with an empty profile of its own. */
export function openBrowser({
  width = 1280,
  height = 800,
  scheme = 'light',
  userAgent,
  script = true,
  locale = 'en-GB',
}: Look = {}): Promise<BrowserContext> {
  return chromium.launchPersistentContext(mkdtempSync(join(tmpdir(), 'flimbo-browser-')), {
    executablePath: '/usr/bin/chromium',
    args: FLAGS,
    viewport: { width, height },
    colorScheme: scheme,
    // Half of what a page costs here would be its moving from one state to the next.
    reducedMotion: 'reduce',
    javaScriptEnabled: script,
    ...(userAgent === undefined ? {} : { userAgent }),
    locale,
    timezoneId: 'Europe/Berlin',
    acceptDownloads: true,
  })
}
