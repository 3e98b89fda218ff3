import type { ReachedGoal } from '@flimbo/core/goals'

/** What a site told of one scan, as it is stored. */
export interface SiteRecord {
  readonly workspaceId: number
  readonly codeId: number
  readonly scanId: number
  readonly routeId: number
  /** UTC milliseconds. */
  readonly at: number
  /** Why it is kept apart; empty where it is a person's. */
  readonly apart: string
  /** The page that is looked at: its host and path, and for how many seconds so far; null where none is. */
  readonly view: { readonly key: string; readonly page: string; readonly seconds: number } | null
  readonly reached: readonly ReachedGoal[]
}
