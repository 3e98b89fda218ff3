/** What one of the front door's own pages says. */
export interface PageWords {
  readonly title: string
  readonly text: string
}

/** Pages that say why a scan led nowhere, or what an address is. */
export const OWN_PAGES = [
  'home',
  'unknown',
  'paused',
  'deleted',
  'early',
  'over',
  'full',
  'full-today',
  'busy',
  'method',
  'malformed',
] as const
export type OwnPage = (typeof OWN_PAGES)[number]

/** All that Flimbo itself says to visitors, in one language. */
export interface Words {
  readonly pages: Readonly<Record<OwnPage, PageWords>>
  readonly password: PageWords & {
    readonly label: string
    readonly goOn: string
    readonly wrong: string
    /** With `{time}`. */
    readonly wait: string
  }
  readonly location: {
    readonly title: string
    readonly keep: string
    readonly tell: string
    readonly without: string
  }
  readonly onward: {
    /** With `{host}`. */
    readonly onTo: string
    readonly privacy: string
    readonly yes: string
    readonly no: string
  }
  /** What stands on pages beside what their managers wrote. */
  readonly parts: {
    readonly openNow: string
    readonly closedNow: string
    /** With `{time}`, after the former. */
    readonly until: string
    /** With `{time}`, after the latter. */
    readonly opens: string
    /** Of a day. */
    readonly closed: string
    readonly saveContact: string
    readonly addToWallet: string
    readonly share: string
    readonly addToCalendar: string
    readonly openInMaps: string
    readonly mapOnWeb: string
    /** What is said in a recording or film, to be read. */
    readonly transcript: string
    readonly languages: string
  }
}
