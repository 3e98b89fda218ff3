// Bundles the server: one script for each process and each thread, side by side.
import { build } from 'esbuild'
import { root } from './install.mjs'

/** Packages that load files of their own beside their scripts. */
const OUTSIDE = ['better-sqlite3', 'exceljs', 'sharp']

/** What a package would use if it were there, such as TypeORM's drivers for other databases, is not looked for. */
const optionalOutside = {
  name: 'optional-outside',
  setup(builder) {
    builder.onResolve({ filter: /^[^./]/ }, async ({ path, kind, resolveDir, pluginData }) => {
      if (pluginData === optionalOutside || !resolveDir.includes('node_modules')) return undefined
      const found = await builder.resolve(path, { kind, resolveDir, pluginData: optionalOutside })
      return found.errors.length > 0 ? { path, external: true } : found
    })
  },
}

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
      'report-thread': 'server/reports/report-thread.ts',
      'cities-thread': 'server/scans/cities-thread.ts',
      'bodies-thread': 'server/api/bodies-thread.ts',
      'rows-thread': 'server/scans/rows-thread.ts',
      'figures-command': 'server/scans/figures-command.ts',
      'packer-thread': 'server/scans/packer-thread.ts',
      'pass-thread': 'server/pages/pass-thread.ts',
      'print-thread': 'server/print/print-thread.ts',
      'proof-thread': 'server/print/proof-thread.ts',
      'sheets-thread': 'server/plan/sheets-thread.ts',
      ...more,
    },
    outdir,
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    sourcemap: true,
    sourcesContent: false,
    logLevel: 'warning',
    // Packages are bundled too: every process and thread would otherwise look for hundreds of files at each start.
    banner: {
      js: "import { createRequire as requireBy } from 'node:module'; const require = requireBy(import.meta.url);",
    },
    external: OUTSIDE,
    plugins: [optionalOutside],
  })
}
