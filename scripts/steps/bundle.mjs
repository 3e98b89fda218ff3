// Bundles the server: one script for each process and each thread, side by side.
import { build } from 'esbuild'
import { root } from './install.mjs'

export async function bundleServer(outdir, more = {}) {
  await build({
    absWorkingDir: root,
    entryPoints: {
      main: 'server/main.ts',
      'door-process': 'server/processes/door-process.ts',
      'office-process': 'server/processes/office-process.ts',
      'standins-process': 'server/processes/standins-process.ts',
      'upkeep-thread': 'server/scans/upkeep-thread.ts',
      'writer-thread': 'server/scans/writer-thread.ts',
      'reader-thread': 'server/reader/reader-thread.ts',
      'cities-thread': 'server/scans/cities-thread.ts',
      'write-cities': 'server/scans/write-cities.ts',
      'bodies-thread': 'server/api/bodies-thread.ts',
      'csv-thread': 'server/scans/csv-thread.ts',
      'sheets-thread': 'server/plan/sheets-thread.ts',
      ...more,
    },
    outdir,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    logLevel: 'warning',
    // Packages stay packages; only our own rooms are bundled, and what would load hundreds of files at each start.
    plugins: [
      {
        name: 'packages-outside',
        setup(builder) {
          builder.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            path.startsWith('@flimbo/') || /^(@date-fns\/tz|date-fns)$/.test(path) || kind === 'entry-point'
              ? undefined
              : { path, external: true },
          )
        },
      },
    ],
  })
}
