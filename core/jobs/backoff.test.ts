import { expect, test } from 'vitest'
import { pauseAfter } from './index.ts'

test('what fails is tried again after five seconds, then twice as long each time, an hour at most', () => {
  expect([1, 2, 3, 10, 11, 60].map(pauseAfter)).toEqual([
    5000, 10_000, 20_000, 2_560_000, 3_600_000, 3_600_000,
  ])
})
