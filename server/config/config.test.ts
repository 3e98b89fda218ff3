import { describe, expect, it } from 'vitest'
import { ConfigError, readConfig } from './index.ts'

describe('the configuration', () => {
  it('has a usual value for everything', () => {
    expect(readConfig({ PATH: '/bin', FLIMBO_BIND: '' })).toMatchObject({
      officePort: 4000,
      doorPort: 4001,
      standInPort: 4002,
      bind: '127.0.0.1',
      officeUrl: 'http://localhost:4000',
      doorUrl: 'http://localhost:4001',
      trust: null,
      standIns: false,
    })
  })

  it('follows the ports and takes origins in any spelling', () => {
    expect(
      readConfig({ FLIMBO_DOOR_PORT: '80', FLIMBO_DOOR_URL: 'HTTPS://Go.Saltmarsh.Example:443/' }).doorUrl,
    ).toBe('https://go.saltmarsh.example')
    expect(readConfig({ FLIMBO_DOOR_PORT: '5001' }).doorUrl).toBe('http://localhost:5001')
  })

  it('trusts the proxies it names and no others', () => {
    const { trust } = readConfig({ FLIMBO_TRUST_PROXY: 'loopback, 10.0.0.0/8' })
    // Asked twice, it is the same.
    for (let i = 0; i < 2; i++)
      expect(['127.0.0.1', '::1', '10.9.8.7', '192.0.2.1'].map((address) => trust?.(address, 0))).toEqual([
        true,
        true,
        true,
        false,
      ])
  })

  it.each([
    [{ FLIMBO_DOOR_PORT: '99999' }, 'FLIMBO_DOOR_PORT=99999: must be a port number'],
    [{ FLIMBO_DOOR_PORT: 'http' }, 'FLIMBO_DOOR_PORT=http: must be a port number'],
    [
      { FLIMBO_DOOR_URL: 'go.saltmarsh.example' },
      'FLIMBO_DOOR_URL=go.saltmarsh.example: must be an origin such as https://go.example.com',
    ],
    [
      { FLIMBO_DOOR_URL: 'https://saltmarsh.example/go' },
      'FLIMBO_DOOR_URL=https://saltmarsh.example/go: must be an origin without a path',
    ],
    [
      { FLIMBO_TRUST_PROXY: 'everyone' },
      'FLIMBO_TRUST_PROXY=everyone: must list addresses, networks such as 10.0.0.0/8, or loopback, parted by commas',
    ],
    [{ FLIMBO_STANDINS: 'yes' }, 'FLIMBO_STANDINS=yes: must be on or off'],
    [
      { FLIMBO_DNS: 'dns.saltmarsh.example' },
      'FLIMBO_DNS=dns.saltmarsh.example: must be the address of a name server, such as 127.0.0.1:5353',
    ],
    [{ FLIMBO_CHECK_HOUR: '24' }, 'FLIMBO_CHECK_HOUR=24: must be an hour from 0 to 23, or off'],
    [{ FLIMBO_CHECK_PRIVATE: '1' }, 'FLIMBO_CHECK_PRIVATE=1: must be on or off'],
    [{ FLIMBO_PORT: '1' }, 'FLIMBO_PORT: no such setting; see the table in README.md'],
  ])('refuses %j with one line', (environment, line) => {
    expect(() => readConfig(environment)).toThrow(new ConfigError(line))
  })
})

describe('settings of domains and checks', () => {
  it('are the machine’s own name servers, no private addresses, and three at night', () => {
    expect(readConfig({})).toMatchObject({
      dns: null,
      checkPrivate: false,
      checkHour: 3,
      dnsStandInPort: 4003,
    })
  })

  it.each([['127.0.0.1:5353'], ['9.9.9.9'], ['[2620:fe::fe]:53']])('take %s for a name server', (dns) => {
    expect(readConfig({ FLIMBO_DNS: dns }).dns).toBe(dns)
  })

  it('are switched off by a word', () => {
    expect(readConfig({ FLIMBO_CHECK_HOUR: 'off', FLIMBO_CHECK_PRIVATE: 'on' })).toMatchObject({
      checkHour: null,
      checkPrivate: true,
    })
    expect(readConfig({ FLIMBO_CHECK_HOUR: '0' }).checkHour).toBe(0)
  })
})

describe('the settings of mail', () => {
  const whole = {
    FLIMBO_SMTP_HOST: 'mail.saltmarsh.example',
    FLIMBO_SMTP_FROM: 'office@saltmarsh.example',
  }

  it('are none where no server is named, and otherwise encrypted, from one address', () => {
    expect(readConfig({}).mail).toBeNull()
    expect(readConfig(whole).mail).toEqual({
      host: 'mail.saltmarsh.example',
      port: 587,
      tls: 'starttls',
      user: '',
      password: '',
      from: 'office@saltmarsh.example',
      bounce: 'office@saltmarsh.example',
    })
    expect(
      readConfig({ ...whole, FLIMBO_SMTP_BOUNCE: 'bounces@saltmarsh.example', FLIMBO_SMTP_PORT: '465' }).mail,
    ).toMatchObject({ bounce: 'bounces@saltmarsh.example', port: 465 })
  })

  it.each([
    [{ FLIMBO_SMTP_HOST: 'mail.saltmarsh.example' }, /^FLIMBO_SMTP_FROM: must be the address/],
    [{ ...whole, FLIMBO_SMTP_FROM: 'Office <a@b.example>' }, /must be a mail address/],
    [{ ...whole, FLIMBO_SMTP_TLS: 'on' }, /^FLIMBO_SMTP_TLS=on: must be starttls, tls or off$/],
    [{ ...whole, FLIMBO_SMTP_PASSWORD: 'low tide' }, /give both, or neither$/],
    [{ ...whole, FLIMBO_SMTP_USER: 'flimbo' }, /give both, or neither$/],
  ])('refuse %j, and say no password', (environment, sentence) => {
    expect(() => readConfig(environment)).toThrow(sentence)
    expect(() => readConfig(environment)).not.toThrow(/low tide/)
  })
})
