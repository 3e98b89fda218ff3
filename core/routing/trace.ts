import type { Check } from '../conditions/index.ts'

/** One step of a decision: what was looked at, what it saw, and whether it settled the matter. */
export type TraceStep =
  | {
      readonly look: 'code' | 'route' | 'life' | 'limit' | 'password' | 'location' | 'otherwise'
      readonly saw: string
      readonly settled: boolean
    }
  | {
      readonly look: 'lane'
      readonly lane: string
      readonly saw: string
      readonly settled: boolean
      readonly checks: readonly Check[]
    }
  | {
      readonly look: 'split' | 'onward'
      readonly lane: string
      readonly saw: string
      readonly settled: boolean
    }
