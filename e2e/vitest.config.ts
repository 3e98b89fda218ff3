import { defineConfig } from 'vitest/config'

// One browser and one server at a time: the tests follow people through the day.
export default defineConfig({
  test: {
    include: ['e2e/**/*.test.ts'],
    testTimeout: 90_000,
    hookTimeout: 90_000,
    fileParallelism: false,
    sequence: { concurrent: false },
  },
})
