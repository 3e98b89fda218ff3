import Sqlite from 'better-sqlite3'
import { foldWriter } from '../../server/figures/index.ts'
import { readerQueries } from '../../server/reader/queries.ts'
import { foldPlan, rowClearer, scanFact, scanPacker } from '../../server/scans/queries.ts'
import { prepareWriter } from '../../server/sqlite/index.ts'

const seconds = (began: number) => ((performance.now() - began) / 1000).toFixed(1)
const milliseconds = (work: () => unknown) => {
  const began = performance.now()
  work()
  return `${(performance.now() - began).toFixed(0)} ms`
}

/** Folds the scans before a moment: how long it takes, what their sums take, and what a figure of them costs then. */
export function foldYear(
  file: string,
  before: number,
  question: (ask: ReturnType<typeof readerQueries>) => unknown,
): void {
  const read = new Sqlite(file, { readonly: true })
  const write = new Sqlite(file)
  prepareWriter(write)
  const packer = scanPacker(read)
  try {
    let [began, longest, last] = [performance.now(), 0, performance.now()]
    const fold = packer.fold(foldPlan(read, new Map([[1, before]]), Date.now()), foldWriter(write, scanFact))
    for (const _step of fold) {
      longest = Math.max(longest, performance.now() - last)
      last = performance.now()
    }
    const folding = seconds(began)
    began = performance.now()
    const clear = rowClearer(write)
    while (clear());
    const { scans, bytes } = write
      .prepare(
        `SELECT (SELECT sum(facts) FROM folds) AS scans, (SELECT sum(length(content)) FROM fold_pieces) AS bytes`,
      )
      .get() as { scans: number; bytes: number }
    console.log(
      `folding ${scans.toLocaleString('en-GB')} counted scans: ${folding} s, the longest step ${longest.toFixed(0)} ms; their rows removed in ${seconds(began)} s; ${(bytes / scans).toFixed(1)} bytes a scan in sums`,
    )
    const ask = readerQueries(read)
    const [cold, warm] = [milliseconds(() => question(ask)), milliseconds(() => question(ask))]
    console.log(`results of two years, half of them folded: ${cold} the first time, ${warm} then`)
  } finally {
    packer.close()
    write.close()
    read.close()
  }
}
