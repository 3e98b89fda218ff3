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
  /** What stands in forms beside what their managers wrote, and what is wrong with answers. */
  readonly forms: {
    readonly send: string
    readonly next: string
    readonly back: string
    /** With `{n}` and `{of}`. */
    readonly step: string
    /** Beside a question. */
    readonly required: string
    readonly other: string
    /** What is written in beside “Other”. */
    readonly otherWhich: string
    readonly choose: string
    readonly yes: string
    readonly no: string
    readonly agree: string
    readonly rankHint: string
    readonly check: string
    readonly more: string
    readonly missing: string
    readonly disagreed: string
    readonly mail: string
    readonly phone: string
    readonly number: string
    readonly whole: string
    /** With `{n}`. */
    readonly decimals: string
    /** With `{n}`. */
    readonly least: string
    /** With `{n}`. */
    readonly most: string
    /** With `{n}`. */
    readonly leastChoices: string
    /** With `{n}`. */
    readonly mostChoices: string
    readonly date: string
    /** With `{date}`. */
    readonly dateFirst: string
    /** With `{date}`. */
    readonly dateLast: string
    readonly choice: string
    readonly rank: string
    /** With `{n}` and `{most}`, counted in characters. */
    readonly tooLong: string
    readonly fileType: string
    /** With `{size}`. */
    readonly fileSize: string
    /** With `{size}`. */
    readonly fileNote: string
    readonly thanksTitle: string
    readonly thanks: string
    /** With `{time}`. */
    readonly early: string
    readonly closed: string
    readonly full: string
    readonly once: string
    /** With `{time}`, a span of months. */
    readonly kept: string
    readonly draft: string
    readonly sending: string
    readonly offline: string
    readonly expired: string
  }
  /** What stands in the place of a report whose link is over. */
  readonly reports: {
    readonly over: string
    readonly askAgain: string
  }
  /** What stands in mails to people who answered forms, and where their links lead, beside what managers wrote. */
  readonly mails: {
    readonly confirmSubject: string
    /** With `{page}`. */
    readonly confirmText: string
    readonly confirmButton: string
    /** With `{time}`. */
    readonly confirmUntil: string
    /** With `{mail}`. */
    readonly confirmAsk: string
    readonly confirmed: string
    readonly confirmOver: string
    /** Said on the page after sending. */
    readonly checkMail: string
    readonly answerSubject: string
    /** With `{page}`. */
    readonly why: string
  }
}
