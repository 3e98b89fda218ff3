import { statSync } from 'node:fs'
import { workerData } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { prepareWriter } from '../sqlite/index.ts'
import { serveCalls } from '../threads/index.ts'
import { destroyPastDays } from './days.ts'
import { logKeeper } from './log.ts'
import type { UpkeepCalls } from './upkeep.ts'

/** The log is copied into the database from this size on, and cut from that one on. */
const COPIED_BYTES = 1 << 20
const CUT_BYTES = 256 << 20
const COPY_MS = 2000
/** Days are looked at this often; so long may a salt outlive its day. */
const DAYS_MS = 10_000
const PAUSE_MS = 2

const { file } = workerData as { file: string }
const database = new Sqlite(file)
prepareWriter(database)
const log = logKeeper(database)
const sleeper = new Int32Array(new SharedArrayBuffer(4))

let daysAt = 0
let copiedAt = 0
/** Whether something was destroyed that may still stand in the log. */
let mustCut = false

function sizeOfLog(): number {
  return statSync(`${file}-wal`, { throwIfNoEntry: false })?.size ?? 0
}

function lookAfter(): void {
  const now = Date.now()
  // A clock that was set back looks at once.
  if (now >= daysAt || now < daysAt - DAYS_MS) {
    if (
      destroyPastDays(database, now, () => {
        Atomics.wait(sleeper, 0, 0, PAUSE_MS)
      }) > 0
    )
      mustCut = true
    daysAt = now + DAYS_MS
  }
  const size = sizeOfLog()
  if (mustCut || size > CUT_BYTES) mustCut = !log.cut() && mustCut
  else if (size > COPIED_BYTES && Math.abs(now - copiedAt) > COPY_MS) {
    log.copy()
    copiedAt = now
  }
}

const calls: UpkeepCalls = {
  look() {
    lookAfter()
    return !mustCut
  },
}
serveCalls(calls, () => {
  database.close()
})
