// Builds the server into server/dist and the application into web/dist.
import { build as buildWeb } from 'vite'
import { bundleServer } from './steps/bundle.mjs'
import { listCities } from './steps/cities.mjs'
import { compressAll } from './steps/compress.mjs'
import { root } from './steps/install.mjs'

await bundleServer('server/dist')
const cities = listCities('server/dist')
await buildWeb({ root: `${root}/web`, configFile: `${root}/web/vite.config.ts`, logLevel: 'warn' })
compressAll(`${root}/web/dist`)
await cities
