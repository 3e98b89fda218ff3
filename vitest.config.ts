import { defineConfig } from 'vitest/config'

/** Measures how long a phone waits: nothing else may want the two cores meanwhile, so it comes last and alone. */
const QUIET = 'server/tests/misuse.test.ts'

export default defineConfig({
  test: {
    globalSetup: './scripts/steps/testBundle.mjs',
    testTimeout: 30_000,
    hookTimeout: 60_000,
    // Most of a server test is waiting for the disk: two workers keep both cores busy.
    maxWorkers: 2,
    // Files of one worker share what they import: loading it took longer than most tests do.
    isolate: false,
    projects: [
      {
        extends: true,
        test: {
          name: 'rooms',
          include: ['core/**/*.test.ts', 'server/**/*.test.ts', 'demo/**/*.test.ts', 'web/**/*.test.ts'],
          exclude: [QUIET],
          sequence: { groupOrder: 0 },
        },
      },
      // Hooks and components, in a DOM.
      {
        extends: true,
        test: {
          name: 'web',
          environment: 'happy-dom',
          include: ['web/**/*.test.tsx'],
          sequence: { groupOrder: 0 },
        },
      },
      { extends: true, test: { name: 'quiet', include: [QUIET], sequence: { groupOrder: 1 } } },
    ],
  },
})
