import { defineConfig } from 'vitest/config'

// Each file follows people through a day, on a server and in a browser of its own: two cores take two at a time.
export default defineConfig({
  test: {
    include: ['e2e/**/*.test.ts'],
    testTimeout: 90_000,
    hookTimeout: 90_000,
    maxWorkers: 2,
    isolate: false,
    // A screen follows a key a moment later: on two busy cores that moment is longer than a second.
    expect: { poll: { timeout: 10_000 } },
    sequence: { concurrent: false },
  },
})
