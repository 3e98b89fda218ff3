// npm run figures -- prove | rebuild: recounts the figures of a Flimbo from its rows, or has them made anew first. It may
// run meanwhile: its office packs them then.
import { existsSync } from 'node:fs'
import { setTimeout as pause } from 'node:timers/promises'
import Sqlite from 'better-sqlite3'
import { readConfig } from '../config/index.ts'
import { packScansAnew, proveEvents, proveScans, scanPacker } from './queries.ts'

const LOOK_MS = 500

async function packAll(database: Sqlite.Database): Promise<void> {
  const packer = scanPacker(database)
  for (let state = packer.step(); state.hasMore; state = packer.step()) {
    progress(`Packed ${state.mark.toLocaleString('en-GB')} of ${state.newest.toLocaleString('en-GB')}`)
    if (!state.isPacking) await pause(LOOK_MS)
  }
  packer.close()
  progress('')
}

/** Overwrites a line of the terminal; a file or another program is told only what came of it. */
function progress(sentence: string): void {
  if (process.stdout.isTTY) process.stdout.write(sentence === '' ? '\n' : `\r${sentence}`)
}

const [what] = process.argv.slice(2)
const { databaseFile } = readConfig(process.env)
if (what !== 'prove' && what !== 'rebuild') {
  console.error('Say what to do: npm run figures -- prove, or npm run figures -- rebuild')
  process.exitCode = 2
} else if (!existsSync(databaseFile)) {
  console.error(`There is no ${databaseFile}: name its directory in FLIMBO_DATA_DIR.`)
  process.exitCode = 2
} else {
  const database = new Sqlite(databaseFile, { readonly: true, timeout: 5000 })
  if (what === 'rebuild') {
    packScansAnew(database)
    await packAll(database)
  }
  const { segments, facts, ...scans } = proveScans(database, (counted) => {
    progress(`Recounted ${counted.toLocaleString('en-GB')} scans`)
  })
  progress('')
  const onPages = proveEvents(database)
  const wrong = [...scans.wrong, ...onPages.wrong]
  for (const sentence of wrong) console.error(sentence)
  console.log(
    wrong.length === 0
      ? `${String(segments)} segments of ${facts.toLocaleString('en-GB')} scans, and ${onPages.facts.toLocaleString('en-GB')} of what happened on pages, agree with the rows, to the unit.`
      : 'The figures do not agree with the rows. Have them made anew: npm run figures -- rebuild',
  )
  process.exitCode = wrong.length === 0 ? 0 : 1
  database.close()
}
