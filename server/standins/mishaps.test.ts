import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { http } from '../tests/running.ts'
import { destinationSite } from './index.ts'

const site = destinationSite()
let port = 0
beforeAll(async () => {
  await new Promise<void>((resolve) => {
    site.listen(0, '127.0.0.1', resolve)
  })
  port = (site.address() as AddressInfo).port
})
afterAll(() => {
  site.closeAllConnections()
  site.close()
})

const get = (path: string) => http('GET', port, path, { host: 'saltmarsh.example' })

describe('what goes wrong at the destination site', () => {
  it('an old page leads to its new place and loses the query', async () => {
    const { status, headers } = await get('/old/tides?utm_source=a')
    expect([status, headers.location]).toEqual([302, '/tides'])
  })

  it('a moved page leads to its new place and keeps the query', async () => {
    const { headers } = await get('/moved/tides?utm_source=a')
    expect(headers.location).toBe('/tides?utm_source=a')
  })

  it('by path, redirects stay below the host they are for', async () => {
    const { headers } = await http('GET', port, '/at/saltmarsh.example/old/tides?utm_source=a')
    expect(headers.location).toBe('/at/saltmarsh.example/tides')
  })

  it('a loop leads to itself', async () => {
    const { headers } = await get('/loop?x=1')
    expect(headers.location).toBe('/loop?x=1')
  })

  it.each([
    ['/gone', 404],
    ['/gone/for/ever', 404],
    ['/broken', 500],
  ])('%s answers %i', async (path, status) => {
    expect((await get(path)).status).toBe(status)
  })

  it.each(['/olden-days', '/goners', '/', '/timetable/old'])('%s is a page like any other', async (path) => {
    expect((await get(path)).status).toBe(200)
  })
})
