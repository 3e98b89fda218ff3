import { Resolver } from 'node:dns/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Domain } from '@flimbo/core/domains'
import type { Campaign } from '@flimbo/core/campaigns'
import { dnsStandIn, type DnsStandIn } from '../standins/index.ts'
import { runningFlimbo, type Running } from '../tests/running.ts'

let dns: DnsStandIn
let flimbo: Running
beforeAll(async () => {
  dns = await dnsStandIn(0, '127.0.0.1', {
    cname: { 'alias.test': 'real.test' },
    txt: { 'alias.test': ['one', 'x'.repeat(250)] },
  })
  flimbo = await runningFlimbo({ FLIMBO_DNS: `127.0.0.1:${String(dns.port)}` })
  await flimbo.setUp()
})
afterAll(async () => {
  await flimbo.close()
  await dns.close()
})

const add = async (host: string) => (await flimbo.ask<Domain>('POST', '/api/domains', { host })).body
const check = async ({ id }: Domain) =>
  (await flimbo.ask<Domain>('POST', `/api/domains/${String(id)}/look-ups`)).body
const setRecords = ({ records }: Domain) => {
  if (records)
    dns.set({
      cname: { [records.cname.name]: records.cname.value },
      txt: { [records.txt.name]: [records.txt.value] },
    })
}
async function ready(host: string): Promise<Domain> {
  const domain = await add(host)
  setRecords(domain)
  return check(domain)
}
const at = (host: string) => ({ host })

describe('the DNS stand-in', () => {
  it('speaks the protocol to a resolver over UDP, and knows what it does not know', async () => {
    const resolver = new Resolver({ timeout: 500, tries: 1 })
    resolver.setServers([`127.0.0.1:${String(dns.port)}`])
    expect(await resolver.resolveCname('ALIAS.test')).toEqual(['real.test'])
    expect(await resolver.resolveTxt('alias.test')).toEqual([['one'], ['x'.repeat(250)]])
    await expect(resolver.resolveCname('nobody.test')).rejects.toMatchObject({ code: 'ENOTFOUND' })
    await expect(resolver.resolve4('alias.test')).rejects.toMatchObject({ code: 'ENODATA' })
  })
})

describe('a domain', () => {
  it('is named, shows its records, and is ready once they are found', async () => {
    const domain = await add('QR.Saltmarsh.example')
    expect(domain).toMatchObject({
      host: 'qr.saltmarsh.example',
      origin: 'http://qr.saltmarsh.example',
      state: 'waiting',
      records: {
        cname: { name: 'qr.saltmarsh.example', value: 'go.saltmarsh.example' },
        txt: { name: '_flimbo.qr.saltmarsh.example' },
      },
    })
    expect(await check(domain)).toMatchObject({
      state: 'waiting',
      finding: expect.stringContaining('There is no CNAME record') as string,
    })
    dns.set({ cname: { 'qr.saltmarsh.example': 'elsewhere.test' } })
    expect((await check(domain)).finding).toContain('leads to elsewhere.test instead of go.saltmarsh.example')
    setRecords(domain)
    expect(await check(domain)).toMatchObject({
      state: 'ready',
      finding: 'Both records are there: short links on this domain work.',
    })
  })

  it.each([
    ['https://x.test', 'host'],
    ['x', 'host'],
    ['go.saltmarsh.example', 'host'],
    ['QR.saltmarsh.example', 'host'],
    ['a b.test', 'host'],
  ])('is refused as %j', async (host, field) => {
    expect((await flimbo.refused('POST', '/api/domains', { host })).fields?.[0]?.path).toBe(field)
  })

  it('that waits takes no codes and is no default', async () => {
    const { id, version } = await add('later.saltmarsh.example')
    const campaign = await flimbo.campaign()
    expect(
      (
        await flimbo.refused('POST', '/api/codes', {
          campaignId: campaign.id,
          name: 'X',
          medium: 'print',
          source: 's',
          destination: 'https://saltmarsh.example',
          domainId: id,
        })
      ).fields?.[0]?.path,
    ).toBe('domainId')
    expect(
      (await flimbo.refused('PATCH', `/api/domains/${String(id)}`, { version, isDefault: true })).fields?.[0]
        ?.path,
    ).toBe('isDefault')
  })

  it('is asked for by Host, and the same slug leads elsewhere on another', async () => {
    const domain = await ready('cards.saltmarsh.example')
    const campaign = await flimbo.campaign()
    await flimbo.code(campaign.id, { slug: 'same', destination: 'https://saltmarsh.example/own' })
    const code = await flimbo.code(campaign.id, {
      slug: 'same',
      destination: 'https://saltmarsh.example/cards',
      domainId: domain.id,
    })
    expect(code.shortLink).toBe('http://cards.saltmarsh.example/SAME')
    const pathAt = async (host: string) =>
      new URL((await flimbo.scan('/same', at(host))).headers.location ?? '').pathname
    expect([
      await pathAt('cards.saltmarsh.example:80'),
      await pathAt('CARDS.saltmarsh.example.'),
      await pathAt('go.saltmarsh.example'),
      await pathAt('unheard-of.test'),
    ]).toEqual(['/cards', '/cards', '/own', '/own'])
    expect(
      (await flimbo.refused('PATCH', `/api/codes/${String(code.id)}`, { version: 1, domainId: 1 }))
        .fields?.[0]?.path,
    ).toBe('slug')
    const { body: svg } = await flimbo.ask('GET', `/api/codes/${String(code.id)}/file?format=svg`)
    expect(svg).toContain('<svg')
    expect(
      (
        await flimbo.refused('POST', '/api/codes', {
          campaignId: campaign.id,
          name: 'X',
          medium: 'print',
          source: 's',
          destination: 'http://cards.saltmarsh.example/SAME',
        })
      ).fields?.[0]?.message,
    ).toContain('in a circle')
  })

  it('is chosen by campaign, or else client, or else workspace', async () => {
    const [ofWorkspace, ofClient, ofCampaign] = [
      await ready('w.saltmarsh.example'),
      await ready('c.saltmarsh.example'),
      await ready('k.saltmarsh.example'),
    ]
    await flimbo.ask('PATCH', `/api/domains/${String(ofWorkspace.id)}`, {
      version: ofWorkspace.version,
      isDefault: true,
    })
    const campaign = await flimbo.campaign('Choice')
    const origin = async () => new URL((await flimbo.code(campaign.id)).shortLink).hostname
    expect(await origin()).toBe('w.saltmarsh.example')
    await flimbo.ask('PATCH', '/api/clients/1', { domainId: ofClient.id })
    expect(await origin()).toBe('c.saltmarsh.example')
    await flimbo.ask('PATCH', `/api/campaigns/${String(campaign.id)}`, {
      version: campaign.version,
      domainId: ofCampaign.id,
    })
    expect(await origin()).toBe('k.saltmarsh.example')
    await flimbo.ask('PATCH', '/api/clients/1', { domainId: null })
    const own = (await flimbo.ask<{ rows: Domain[] }>('GET', '/api/domains')).body.rows[0]
    await flimbo.ask('PATCH', '/api/domains/1', { version: own?.version, isDefault: true })
  })

  it('has its own home and its own words for what it does not have', async () => {
    const domain = await ready('home.saltmarsh.example')
    const path = `/api/domains/${String(domain.id)}`
    const here = at('home.saltmarsh.example')
    expect((await flimbo.scan('/', here)).status).toBe(200)
    await flimbo.ask('PATCH', path, {
      version: domain.version,
      home: 'https://saltmarsh.example/süd',
      unknownText: 'Ask at the <pier> & we help.',
    })
    expect((await flimbo.scan('/', here)).headers.location).toBe('https://saltmarsh.example/s%C3%BCd')
    const unknown = await flimbo.scan('/nothing-here', here)
    expect([unknown.status, unknown.body]).toEqual([
      404,
      expect.stringContaining('Ask at the &lt;pier&gt; &amp; we help.'),
    ])
    await flimbo.ask('PATCH', path, {
      version: domain.version + 1,
      unknown: 'https://saltmarsh.example/help',
    })
    expect((await flimbo.scan('/nothing-here', here)).headers.location).toBe('https://saltmarsh.example/help')
    expect((await flimbo.scan('/nothing-here')).status).toBe(404)
    expect((await flimbo.refused('PATCH', path, { version: 1, home: '' })).status).toBe(409)
    expect(
      (
        await flimbo.refused('PATCH', path, {
          version: domain.version + 2,
          home: 'http://home.saltmarsh.example/',
        })
      ).fields?.[0]?.path,
    ).toBe('home')
  })

  it('takes its short links with it when it is removed, and only for somebody who says how many', async () => {
    const domain = await ready('short.saltmarsh.example')
    const campaign: Campaign = await flimbo.campaign()
    for (const slug of ['one', 'two']) await flimbo.code(campaign.id, { slug, domainId: domain.id })
    const path = `/api/domains/${String(domain.id)}`
    expect((await flimbo.refused('DELETE', `${path}?links=0`)).fields?.[0]?.message).toContain(
      '2 short links die with this domain',
    )
    expect((await flimbo.scan('/one', at('short.saltmarsh.example'))).status).toBe(302)
    await flimbo.ask('DELETE', `${path}?links=2`)
    expect((await flimbo.scan('/one', at('short.saltmarsh.example'))).status).toBe(404)
    // It can come back, and its short links with it.
    await ready('short.saltmarsh.example')
    expect((await flimbo.scan('/one', at('short.saltmarsh.example'))).status).toBe(302)
  })
})

describe('a domain that several workspaces name', () => {
  const named = (ask: ReturnType<Running['person']>, host: string) =>
    ask<Domain>('POST', '/api/domains', { host })

  it('answers nobody before it is proven, and an unproven claim keeps nobody from it', async () => {
    const theirs = flimbo.person('admin', 'elsewhere')
    const claim = await named(theirs, 'claimed.saltmarsh.example')
    expect(claim.status).toBe(201)
    await theirs('PATCH', `/api/domains/${String(claim.body.id)}`, {
      version: claim.body.version,
      home: 'https://elsewhere.example/',
    })
    expect((await flimbo.scan('/', at('claimed.saltmarsh.example'))).status).toBe(200)
    const domain = await ready('claimed.saltmarsh.example')
    expect(domain.state).toBe('ready')
  })

  it('is not taken with its old links by whoever names it after it was removed', async () => {
    const domain = await ready('old.saltmarsh.example')
    const campaign = await flimbo.campaign()
    await flimbo.code(campaign.id, { slug: 'printed', domainId: domain.id })
    await flimbo.ask('DELETE', `/api/domains/${String(domain.id)}?links=1`)
    const theirs = flimbo.person('admin', 'elsewhere')
    const { body: claim } = await named(theirs, 'old.saltmarsh.example')
    expect((await flimbo.scan('/printed', at('old.saltmarsh.example'))).status).toBe(404)
    // Proven, it is theirs, and empty.
    setRecords(claim)
    expect((await theirs<Domain>('POST', `/api/domains/${String(claim.id)}/look-ups`)).body).toMatchObject({
      state: 'ready',
      links: 0,
    })
    expect((await flimbo.scan('/printed', at('old.saltmarsh.example'))).status).toBe(404)
  })

  it('stays with whoever proved it while their record stands, and goes to the other when it is gone', async () => {
    const domain = await ready('passed.saltmarsh.example')
    const theirs = flimbo.person('admin', 'elsewhere')
    const { body: claim } = await named(theirs, 'passed.saltmarsh.example')
    const [mine, yours] = [domain.records, claim.records]
    if (!mine || !yours) throw new Error('No records')
    dns.set({ txt: { [mine.txt.name]: [mine.txt.value, yours.txt.value] } })
    const lookUp = async () =>
      (await theirs<Domain>('POST', `/api/domains/${String(claim.id)}/look-ups`)).body
    expect(await lookUp()).toMatchObject({
      state: 'waiting',
      finding: expect.stringContaining('Another workspace') as string,
    })
    dns.set({ txt: { [yours.txt.name]: [yours.txt.value] } })
    expect((await lookUp()).state).toBe('ready')
    expect(
      (await flimbo.ask<{ rows: Domain[] }>('GET', '/api/domains')).body.rows.find(
        ({ id }) => id === domain.id,
      )?.state,
    ).toBe('waiting')
  })

  it('is changed by admins alone, and what all share by those who set Flimbo up', async () => {
    const domain = await ready('roles.saltmarsh.example')
    const editor = flimbo.person('editor')
    expect((await named(editor, 'editors.saltmarsh.example')).status).toBe(403)
    expect((await editor('DELETE', `/api/domains/${String(domain.id)}?links=0`)).status).toBe(403)
    const theirs = flimbo.person('admin', 'elsewhere')
    const own = (await theirs<{ rows: Domain[] }>('GET', '/api/domains')).body.rows[0]
    expect(
      (await theirs('PATCH', '/api/domains/1', { version: own?.version, home: 'https://elsewhere.example/' }))
        .status,
    ).toBe(403)
    expect((await theirs('PATCH', '/api/domains/1', { version: own?.version, isDefault: true })).status).toBe(
      200,
    )
  })
})
