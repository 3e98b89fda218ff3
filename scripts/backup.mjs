// npm run backup -- DIRECTORY: copies a running Flimbo's database, uploaded files and releases, so that they fit together.
import { cpSync, existsSync, mkdirSync } from 'node:fs'
import { join, resolve } from 'node:path'
import Sqlite from 'better-sqlite3'

const [to] = process.argv.slice(2)
if (to === undefined) {
  console.error('Say where the backup goes: npm run backup -- DIRECTORY')
  process.exit(1)
}
const from = resolve(process.env.FLIMBO_DATA_DIR || 'data')
const file = join(from, 'flimbo.sqlite')
if (!existsSync(file)) {
  console.error(`There is no ${file}: name its directory in FLIMBO_DATA_DIR.`)
  process.exit(1)
}
mkdirSync(to, { recursive: true })
const database = new Sqlite(file, { readonly: true })
// SQLite's own way: what is written meanwhile is in it, whole.
await database.backup(join(to, 'flimbo.sqlite'))
database.close()
// After the database: whatever it names is there by now. Files are never changed, so those that are there stay.
for (const folder of ['files', 'releases', 'answers'])
  if (existsSync(join(from, folder)))
    cpSync(join(from, folder), join(to, folder), {
      recursive: true,
      force: false,
      filter: (path) => !path.includes('incoming'),
    })
console.log(`Backed up to ${resolve(to)}`)
