// Builds the server into server/dist and the application into web/dist.
import { build } from 'esbuild'
import { build as buildWeb } from 'vite'
import { fileURLToPath } from 'node:url'
import { compressAll } from './steps/compress.mjs'

const root = fileURLToPath(new URL('..', import.meta.url))

await build({
  absWorkingDir: root,
  entryPoints: {
    main: 'server/main.ts',
    'door-process': 'server/processes/door-process.ts',
    'office-process': 'server/processes/office-process.ts',
    'standins-process': 'server/processes/standins-process.ts',
    'upkeep-thread': 'server/scans/upkeep-thread.ts',
    'writer-thread': 'server/scans/writer-thread.ts',
    'reader-thread': 'server/results/reader-thread.ts',
    'cities-thread': 'server/scans/cities-thread.ts',
    'bodies-thread': 'server/api/bodies-thread.ts',
    'csv-thread': 'server/scans/csv-thread.ts',
    'sheets-thread': 'server/plan/sheets-thread.ts',
  },
  outdir: 'server/dist',
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  logLevel: 'warning',
  // Packages stay packages; only our own rooms are bundled, and what would load hundreds of files at each start.
  plugins: [{
    name: 'packages-outside',
    setup(builder) {
      builder.onResolve({ filter: /^[^./]/ }, ({ path, kind }) => (path.startsWith('@flimbo/') || /^(@date-fns\/tz|date-fns)$/.test(path) || kind === 'entry-point' ? undefined : { path, external: true }))
    },
  }],
})
await buildWeb({ root: `${root}/web`, configFile: `${root}/web/vite.config.ts`, logLevel: 'warn' })
compressAll(`${root}/web/dist`)
