/** What is told apart of conversions, each on its own; empty for what is not known any more. */
export interface ConversionTraits {
  readonly place: { readonly country: string; readonly region: string; readonly city: string }
  readonly agent: { readonly device: string; readonly system: string }
  /** The route that decided, by which lane the scan left it, by which variant, and how it ended. */
  readonly way: { readonly routeId: number } & OfScanTraits['way']
  readonly browser: string
  readonly language: string
  readonly referrer: string
  readonly spot: Spot
}

/** What a conversion does not know by itself, and its scan does. */
export interface OfScanTraits {
  readonly way: { readonly outcome: string; readonly exit: string; readonly variant: string }
  readonly browser: string
  readonly language: string
  readonly referrer: string
  readonly spot: Spot
}

interface Spot {
  readonly latitude: number | null
  readonly longitude: number | null
}

/** A trait of some conversions: values by their numbers, and of each conversion which of them it has. */
export interface ConversionTrait<T> {
  readonly values: readonly T[]
  readonly index: Uint32Array
}

/** A lead; a scan that arrived on a site; something wanted that was reached there. */
export const LEAD = 0
export const ARRIVAL = 1
export const GOAL = 2

/** Conversions in columns: what happened after scans, each brought by the code that it belongs to, wherever that is by now. */
export interface Conversions {
  /** Those of these codes, all of them. */
  readonly codes: ReadonlySet<number>
  readonly length: number
  /** UTC milliseconds. */
  readonly at: Float64Array
  readonly codeId: Uint32Array
  /** `LEAD`, `ARRIVAL` or `GOAL`. */
  readonly kind: Uint8Array
  /** Worth in thousandths of the workspace's currency: sums of whole numbers are exact. */
  readonly valueMilli: Float64Array
  /** Worked out once, when it is first asked for. */
  trait<N extends keyof ConversionTraits>(name: N): ConversionTrait<ConversionTraits[N]>
}
