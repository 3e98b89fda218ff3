import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['core/**/*.test.ts', 'server/**/*.test.ts', 'demo/**/*.test.ts', 'web/**/*.test.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
    // Most of a server test is waiting for the disk: two workers keep both cores busy.
    maxWorkers: 2,
  },
})
