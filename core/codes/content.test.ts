import { expect, test } from 'vitest'
import { contentOf } from './index.ts'

test('a symbol carries the short link in capitals, or what a static code says itself', () => {
  expect(contentOf({ origin: 'https://go.saltmarsh.example', slug: 'pier' })).toBe(
    'HTTPS://GO.SALTMARSH.EXAMPLE/PIER',
  )
  expect(contentOf({ content: 'WIFI:T:WPA;S:Pier;P:low tide;;' })).toBe('WIFI:T:WPA;S:Pier;P:low tide;;')
})
