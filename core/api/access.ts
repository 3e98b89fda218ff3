/** What somebody may do with a thing: look at it, change it, or decide for the whole workspace. */
export type Right = 'view' | 'edit' | 'administer'

/** Kinds of things that stand in a campaign: it says whose they are. */
export const CAMPAIGN_THINGS = ['campaign', 'page', 'route', 'code', 'staticCode', 'lead', 'goal'] as const
export type CampaignThing = (typeof CAMPAIGN_THINGS)[number]

/** Kinds of things that somebody may ask for by their id. */
export type Thing =
  | CampaignThing
  | 'client'
  | 'dayNote'
  | 'domain'
  | 'file'
  | 'houseStyle'
  | 'job'
  | 'laneSet'
  | 'mail'
  | 'pageStyle'
  | 'question'
  | 'release'
  | 'report'
  | 'reportLink'
  | 'reportMailing'
  | 'view'
  | 'watch'

/**
 * Where the ids of things stand in what is sent, such as `params.id`, `query.campaignId` or `body.changes.id`;
 * a list on the way is walked, and what is left out is not asked for.
 */
export type Places = Partial<Readonly<Record<Thing, string | readonly string[]>>>

/**
 * Who may call an endpoint: anybody, or whoever has the right in the workspace of every thing that the input names.
 * An endpoint that names none touches what is the caller's own workspace's alone.
 */
export type Access =
  | 'anybody'
  | {
      readonly right: Right
      readonly things?: Places
      /** Whether it may be called without naming any of its things: it then means all of the workspace. */
      readonly orAll?: true
    }

/**
 * The ids at a place of an input, walking every list on the way; those of another type are left out, as they
 * are the contract's to refuse.
 */
export function idsAt<T extends 'number' | 'string'>(
  input: unknown,
  place: string,
  type: T,
): (T extends 'number' ? number : string)[] {
  let found: unknown[] = [input]
  for (const name of place.split('.')) {
    found = found.flat().flatMap((each) => {
      const value = (each as Readonly<Record<string, unknown>> | null | undefined)?.[name]
      return value === undefined ? [] : [value]
    })
  }
  return found.flat().filter((id): id is never => typeof id === type)
}
