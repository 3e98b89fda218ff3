import type { Answer } from './question.ts'
import { splitVerdict, type SplitVerdict } from './splitVerdict.ts'

/** A variant of a split test, with what came of it. */
export interface TestedVariant {
  readonly key: string
  readonly name: string
  readonly scans: number
  readonly uniques: number
  readonly leads: number
}

/** One split test, with its variants in the order of their scans. */
export interface SplitTest {
  /** The route and its lane. */
  readonly name: string
  readonly variants: readonly TestedVariant[]
  readonly verdict: SplitVerdict
}

/**
 * The split tests in an answer by variant: each lane that parted its scans, and what may be said of that by now.
 *
 * @param rate the conversion rate that is expected, 0 to 1
 * @param lift the difference that is to be detected, 0 to 1
 */
export function splitTests(
  { rows, names }: Pick<Answer, 'rows' | 'names'>,
  rate: number,
  lift: number,
): SplitTest[] {
  const tests = new Map<string, TestedVariant[]>()
  for (const {
    keys: [key = ''],
    scans,
    uniques,
    leads,
  } of rows) {
    if (key === '') continue
    const [route = '', exit = ''] = key.split('\t')
    const of = `${route}\t${exit}`
    const name = names.variant?.[key] ?? key
    tests.set(of, [...(tests.get(of) ?? []), { key, name, scans, uniques, leads }])
  }
  return [...tests.values()].flatMap((variants): SplitTest[] => {
    // One alone is compared with nothing.
    if (variants.length < 2) return []
    const called = parted(variants.map(({ name }) => name))
    return [
      {
        name: called.before,
        variants: variants.map((variant, i) => ({ ...variant, name: called.after[i] ?? variant.name })),
        verdict: splitVerdict(
          // Who answers twice is one visitor.
          variants.map(({ uniques, leads }) => ({ hits: Math.min(uniques, leads), trials: uniques })),
          rate,
          lift,
        ),
      },
    ]
  })
}

/** Names that begin alike, as lane and variant do: what they have in common, and what follows the last comma. */
function parted(names: readonly string[]): { before: string; after: string[] } {
  const at = names.map((name) => name.lastIndexOf(', '))
  const [first = '', ...others] = names.map((name, i) => name.slice(0, Math.max(0, at[i] ?? 0)))
  const isCommon = first !== '' && others.every((each) => each === first)
  return isCommon
    ? { before: first, after: names.map((name, i) => name.slice((at[i] ?? 0) + 2)) }
    : { before: 'Split test', after: [...names] }
}
