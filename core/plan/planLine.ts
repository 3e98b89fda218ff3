import type { CodeSet } from '../codes/index.ts'
import type { Finding, HouseRules, TagCounts } from '../tagging/index.ts'
import type { PlanColumn, PlanRow } from './columns.ts'

/** A piece that is there already, as the dry run must know it. */
export interface KnownPiece extends PlanRow {
  readonly id: number
  readonly domainId: number
  readonly routeId: number
  readonly routeCodes: number
  readonly styleId: number | null
  readonly archived: boolean
}

export interface KnownRoute {
  readonly id: number
  readonly name: string
  readonly destination: string
}

/** Everything the dry run must know beside the file. */
export interface PlanWorld {
  readonly columns: readonly PlanColumn[]
  readonly rules: HouseRules
  /** The campaign's value. */
  readonly campaign: string
  /** The domain that short links of the file are on. */
  readonly domainId: number
  readonly pieces: readonly KnownPiece[]
  readonly routes: readonly KnownRoute[]
  /** House styles of the workspace. */
  readonly styles: readonly { readonly id: number; readonly name: string }[]
  /** Short links that other campaigns, deleted pieces or renamed ones hold on the domain; upper case. */
  readonly taken: ReadonlySet<string>
  /** Tags in use, those of the campaign's pieces among them. */
  readonly counts: TagCounts
  /** Why an address may be no destination; null where it may. */
  readonly destinationFault: (address: string) => string | null
}

export interface DryRunOptions {
  /** Whether an empty cell leaves a piece's value or takes it away. */
  readonly empty: 'leave' | 'clear'
  /** Whether an apostrophe may stand before what begins a formula, as our own CSV files have it; cells of workbooks need none. */
  readonly guarded: boolean
  /** Whether what the linter can fix is fixed on the way in. */
  readonly fix?: boolean
}

/** The route a line wants: one that is there, or a new one that lines of the same name share. */
export type WantedRoute =
  | { readonly kind: 'known'; readonly id: number }
  | { readonly kind: 'new'; readonly name: string; readonly destination: string; readonly shared: boolean }

export type NewPiece = { readonly name: string; readonly medium: string; readonly source: string } & Required<
  Omit<
    CodeSet,
    'routeId' | 'destination' | 'state' | 'slug' | 'domainId' | 'archived' | 'name' | 'medium' | 'source'
  >
> & {
    readonly slug: string | null
    readonly state: 'live' | 'paused'
  }

export type LineAction =
  | { readonly kind: 'create'; readonly piece: NewPiece; readonly route: WantedRoute }
  | {
      readonly kind: 'change'
      readonly id: number
      readonly set: CodeSet
      readonly route: WantedRoute | null
    }
  | { readonly kind: 'none' }

export const LINE_VERDICTS = ['create', 'change', 'same', 'refuse'] as const
export type LineVerdict = (typeof LINE_VERDICTS)[number]

/** What one line of a file would do. */
export interface PlanLine {
  /** In the file, from 1, headings and empty lines counted out. */
  readonly line: number
  readonly verdict: LineVerdict
  readonly name: string
  /** Why it is refused; empty otherwise. */
  readonly why: readonly string[]
  /** What would be different, column by column. */
  readonly changes: readonly { readonly column: string; readonly was: string; readonly is: string }[]
  readonly findings: readonly Finding[]
  readonly action: LineAction
}
