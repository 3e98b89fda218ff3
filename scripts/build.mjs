// Builds the server into server/dist and the application into web/dist.
import { build } from 'esbuild'
import { build as buildWeb } from 'vite'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))

await build({
  absWorkingDir: root,
  entryPoints: {
    main: 'server/main.ts',
    'writer-thread': 'server/scans/writer-thread.ts',
    'reader-thread': 'server/results/reader-thread.ts',
    'cities-thread': 'server/scans/cities-thread.ts',
    'sheets-thread': 'server/plan/sheets-thread.ts',
  },
  outdir: 'server/dist',
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'esm',
  sourcemap: true,
  logLevel: 'warning',
  // Packages stay packages; only our own rooms are bundled.
  plugins: [{
    name: 'packages-outside',
    setup(builder) {
      builder.onResolve({ filter: /^[^./]/ }, ({ path, kind }) => (path.startsWith('@flimbo/') || kind === 'entry-point' ? undefined : { path, external: true }))
    },
  }],
})
await buildWeb({ root: `${root}/web`, configFile: `${root}/web/vite.config.ts`, logLevel: 'warn' })
