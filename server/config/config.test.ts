import { describe, expect, it } from 'vitest'
import { ConfigError, readConfig } from './index.ts'

describe('the configuration', () => {
  it('has a usual value for everything', () => {
    expect(readConfig({ PATH: '/bin', FLIMBO_BIND: '' })).toMatchObject({
      officePort: 4000, doorPort: 4001, standInPort: 4002, bind: '127.0.0.1', officeUrl: 'http://localhost:4000', doorUrl: 'http://localhost:4001', trust: null, standIns: false,
    })
  })

  it('follows the ports and takes origins in any spelling', () => {
    expect(readConfig({ FLIMBO_DOOR_PORT: '80', FLIMBO_DOOR_URL: 'HTTPS://Go.Saltmarsh.Example:443/' }).doorUrl).toBe('https://go.saltmarsh.example')
    expect(readConfig({ FLIMBO_DOOR_PORT: '5001' }).doorUrl).toBe('http://localhost:5001')
  })

  it('trusts the proxies it names and no others', () => {
    const { trust } = readConfig({ FLIMBO_TRUST_PROXY: 'loopback, 10.0.0.0/8' })
    expect(['127.0.0.1', '::1', '10.9.8.7', '192.0.2.1'].map((address) => trust?.(address, 0))).toEqual([true, true, true, false])
  })

  it.each([
    [{ FLIMBO_DOOR_PORT: '99999' }, 'FLIMBO_DOOR_PORT=99999: must be a port number'],
    [{ FLIMBO_DOOR_PORT: 'http' }, 'FLIMBO_DOOR_PORT=http: must be a port number'],
    [{ FLIMBO_DOOR_URL: 'go.saltmarsh.example' }, 'FLIMBO_DOOR_URL=go.saltmarsh.example: must be an origin such as https://go.saltmarsh.example'],
    [{ FLIMBO_DOOR_URL: 'https://saltmarsh.example/go' }, 'FLIMBO_DOOR_URL=https://saltmarsh.example/go: must be an origin without a path'],
    [{ FLIMBO_TRUST_PROXY: 'everyone' }, 'FLIMBO_TRUST_PROXY=everyone: must list addresses, networks such as 10.0.0.0/8, or loopback, parted by commas'],
    [{ FLIMBO_STANDINS: 'yes' }, 'FLIMBO_STANDINS=yes: must be on or off'],
    [{ FLIMBO_PORT: '1' }, 'FLIMBO_PORT: no such setting; see the table in README.md'],
  ])('refuses %j with one line', (environment, line) => {
    expect(() => readConfig(environment)).toThrow(new ConfigError(line))
  })
})
