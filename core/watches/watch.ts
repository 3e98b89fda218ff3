/** What can be watched. */
export const WATCH_OF = ['campaign', 'route', 'code'] as const
export type WatchOf = (typeof WATCH_OF)[number]

/** What somebody is told of: each lead, a summary now and then, or scans that reach, stop or exceed something. */
export const WATCH_WHAT = ['leads', 'summary', 'first', 'count', 'silent', 'spike', 'unusual'] as const
export type WatchWhat = (typeof WATCH_WHAT)[number]

/** How often a summary comes; `once` for all that is told when it happens. */
export const WATCH_EVERY = ['once', 'hour', 'day', 'week', 'month'] as const
export type WatchEvery = (typeof WATCH_EVERY)[number]

/** Where in the office the results of what is watched are. */
export const resultsPath = ({
  campaignId,
  of,
  refId,
}: {
  readonly campaignId: number
  readonly of: WatchOf
  readonly refId: number
}): string => `/campaigns/${String(campaignId)}/results${of === 'campaign' ? '' : `?${of}=${String(refId)}`}`
