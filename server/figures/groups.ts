import type { Columns } from '@flimbo/core/figures'
import type { Fact } from './fact.ts'

/** Which codes the facts of a group are at: those of codes that belong elsewhere by now are found by it. */
export interface Groups {
  readonly group: Uint32Array
  readonly code: Uint32Array
  codesOf(group: number): ReadonlySet<number>
}

export function groupsFrom(group: Uint32Array, code: Uint32Array): Groups {
  return {
    group,
    code,
    codesOf(wanted) {
      let [low, high] = [0, group.length]
      while (low < high) {
        const middle = (low + high) >>> 1
        if ((group[middle] ?? 0) < wanted) low = middle + 1
        else high = middle
      }
      const found = new Set<number>()
      for (let i = low; group[i] === wanted; i++) found.add(code[i] ?? 0)
      return found
    },
  }
}

export function groupsOf<D extends string>(columns: Columns<D>, fact: Fact<D>): Groups {
  const { group: by } = fact
  const { values, index } = columns.dimensions[by.dimension]
  const groupOf = Uint32Array.from(values, (value) => by.of(String(value)))
  const pairs: { group: number; code: number }[] = []
  for (let c = 0; c < columns.codes.length; c++) {
    const here = new Set<number>()
    let last = -1
    for (let i = columns.starts[c] ?? 0; i < (columns.starts[c + 1] ?? 0); i++) {
      const group = groupOf[index[i] ?? 0] ?? 0
      if (group === last) continue
      last = group
      here.add(group)
    }
    for (const group of here) pairs.push({ group, code: columns.codes[c] ?? 0 })
  }
  pairs.sort((a, b) => a.group - b.group || a.code - b.code)
  return groupsFrom(
    Uint32Array.from(pairs, ({ group }) => group),
    Uint32Array.from(pairs, ({ code }) => code),
  )
}
