// Before the unit tests: the server as it is now in server/tests/dist. Its processes and threads start
// from there in an instant, where each would otherwise read hundreds of TypeScript files anew.
import { bundleServer } from './bundle.mjs'
import { listCities } from './cities.mjs'
import { root } from './install.mjs'

export default async function setup() {
  await bundleServer('server/tests/dist', {
    'probe-thread': 'server/tests/probe-thread.ts',
    'echo-thread': 'server/tests/echo-thread.ts',
  })
  await listCities('server/tests/dist')
  process.env.BUILT_THREADS = `${root}server/tests/dist/`
}
