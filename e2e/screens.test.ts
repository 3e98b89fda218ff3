import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { api, builtServer, expectAccessible, openScreen, setUp, watchedBrowser } from './running.ts'

interface Made {
  id: number
  routeId: number
  version: number
}

let server: Awaited<ReturnType<typeof builtServer>>
let light: Awaited<ReturnType<typeof watchedBrowser>>
let code: Made

beforeAll(async () => {
  server = await builtServer()
  light = await watchedBrowser()
  await setUp(light.page, server.office)
  const { id: campaignId } = await api<Made>(light.page, 'POST', '/campaigns', {
    name: 'Seal watching',
    zone: 'Europe/Berlin',
    utmCampaign: 'seals-26',
  })
  code = await api<Made>(light.page, 'POST', '/codes', {
    campaignId,
    name: 'Café coaster',
    medium: 'print',
    source: 'coaster',
    destination: 'https://saltmarsh.example/seals?utm_medium=web',
  })
  await api(light.page, 'POST', '/codes', {
    campaignId,
    name: 'Pier banner',
    medium: 'print',
    source: 'banner',
    routeId: code.routeId,
  })
})
afterAll(async () => {
  await light.close()
  await server.close()
})

const SCHEMES = ['light', 'dark'] as const
const SCREENS = [
  ['/', 'Desk'],
  ['/campaigns/1/plan', 'Plan'],
  ['/campaigns/1/plan?code=1', 'Plan'],
  ['/campaigns/1/plan?new', 'Plan'],
  ['/campaigns/1/plan?new=series', 'Plan'],
  ['/campaigns/1/import', 'Import a plan'],
  ['/settings/tags', 'Settings'],
  ['/settings/channels', 'Settings'],
  ['/settings/lanes', 'Settings'],
  ['/settings/visits', 'Settings'],
  ['/settings/domains', 'Settings'],
  ['/settings/links', 'Settings'],
  ['/settings/styles', 'Settings'],
  ['/settings/files', 'Settings'],
  ['/settings/scans', 'Settings'],
  ['/campaigns/1/routes', 'Routes'],
  ['/campaigns/1/routes?route=1&view=settings', 'Routes'],
  ['/campaigns/1/routes?new', 'Routes'],
  ['/campaigns/1/pages', 'Pages'],
  ['/campaigns/1/pages?new', 'Pages'],
  ['/campaigns/1/pages?team', 'Pages'],
  ['/settings/pages', 'Settings'],
  ['/settings/wallet', 'Settings'],
  ['/settings/mail', 'Settings'],
  ['/settings/leads', 'Settings'],
  ['/settings/watches', 'Settings'],
  ['/campaigns/1/print', 'Print'],
  ['/campaigns/1/print?static=new', 'Print'],
  ['/campaigns/1/results', 'Results'],
  ['/results?by=city,medium&in.device=phone', 'Results'],
  ['/campaigns/1/reports', 'Reports'],
  ['/campaigns/1/leads', 'Leads'],
  ['/campaigns/1/leads?view=numbers', 'Leads'],
  ['/leads', 'Leads'],
  ['/phone', 'Phone'],
  ['/jobs', 'Jobs'],
] as const

describe('each screen', () => {
  it('is accessible to who signs in', async () => {
    const visitor = await watchedBrowser()
    await visitor.page.goto(server.office)
    await visitor.page.getByRole('button', { name: 'Sign in' }).waitFor()
    for (const scheme of SCHEMES) {
      await visitor.page.emulateMedia({ colorScheme: scheme })
      await expectAccessible(visitor.page, scheme === 'light' ? 'all' : 'colours')
    }
    await visitor.close()
  })

  it.each(SCREENS)(
    '%s is accessible in light and dark, fits 1280 × 800 sideways, and complains of nothing',
    async (path, heading) => {
      const { page, complaints } = light
      await openScreen(page, path)
      await page.getByRole('heading', { name: heading, exact: true, level: 1 }).waitFor()
      await page.waitForLoadState('load')
      await page.waitForTimeout(300)
      for (const scheme of SCHEMES) {
        await page.emulateMedia({ colorScheme: scheme })
        await expectAccessible(page, scheme === 'light' ? 'all' : 'colours')
      }
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280)
      expect(complaints).toEqual([])
      await page.emulateMedia({ colorScheme: 'light' })
    },
  )
})

describe('by keyboard alone', () => {
  it('walks the plan with J and K, opens the list of keys, and finds anything', async () => {
    const { page } = light
    await page.goto(`${server.office}/campaigns/1/plan`)
    await page.getByRole('gridcell', { name: 'Pier banner', exact: true }).waitFor()
    await page.keyboard.press('j')
    await page.getByRole('complementary', { name: 'Café coaster' }).waitFor()
    await page.keyboard.press('j')
    await page.getByRole('complementary', { name: 'Pier banner' }).waitFor()
    await page.keyboard.press('k')
    await page.getByRole('complementary', { name: 'Café coaster' }).waitFor()
    await page.keyboard.press('Escape')
    await page.getByRole('complementary').waitFor({ state: 'hidden' })
    await page.keyboard.press('?')
    await page.getByRole('dialog', { name: 'Keyboard shortcuts' }).waitFor()
    // Without a word between: the list of keys makes way for the field.
    await page.keyboard.press('Control+k')
    await page.getByRole('dialog', { name: 'Keyboard shortcuts' }).waitFor({ state: 'hidden' })
    await page.keyboard.type('bann')
    await page.getByRole('option', { name: /Pier banner/ }).waitFor()
    await expectAccessible(page)
    await page.keyboard.press('Enter')
    await page.getByRole('complementary', { name: 'Pier banner' }).waitFor()
    await page.keyboard.press('Escape')
    await page.keyboard.press('/')
    await page.keyboard.type('coaster')
    await page.getByRole('gridcell', { name: 'Pier banner', exact: true }).waitFor({ state: 'hidden' })
    await page
      .getByRole('status')
      .filter({ hasText: /^1 piece$/ })
      .waitFor()
    await page.goto(`${server.office}/campaigns/1/plan?code=1`)
    await page.getByRole('complementary', { name: 'Café coaster' }).waitFor()
    await page.keyboard.press('t')
    await page.getByAltText('Before the camera: the chosen piece').waitFor()
  })

  it('reaches everything by Tab and shows where it is', async () => {
    const { page } = light
    await page.goto(server.office)
    await page.getByRole('link', { name: 'Seal watching' }).waitFor()
    const reached: string[] = []
    for (let i = 0; i < 14; i++) {
      await page.keyboard.press('Tab')
      reached.push(
        await page.evaluate(
          () =>
            document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '',
        ),
      )
    }
    expect(reached[0]).toBe('Skip to the content')
    for (const name of ['Flimbo, to the desk', 'Menu of Anna Petersen', 'New campaign', 'Seal watching'])
      expect(reached).toContain(name)
  })
})

describe('two people at once', () => {
  it('nothing is overwritten: both versions are shown and one is chosen', async () => {
    const { page } = light
    await openScreen(page, `/campaigns/1/plan?code=${String(code.id)}`)
    const destination = page.getByLabel('Destination')
    await destination.fill('https://saltmarsh.example/mine')
    await api(page, 'PATCH', `/routes/${String(code.routeId)}`, {
      version: 1,
      destination: 'https://saltmarsh.example/theirs',
    })
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByText('Someone saved this destination after you opened it').waitFor()
    const differs = page.getByRole('table', { name: 'What differs' })
    expect(await differs.innerText()).toContain('https://saltmarsh.example/theirs')
    expect(await destination.inputValue()).toBe('https://saltmarsh.example/mine')
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Overwrite with mine' }).click()
    await page.getByText('Everything is saved.').waitFor()
    expect(
      (await api<{ destination: string }>(page, 'GET', `/routes/${String(code.routeId)}`)).destination,
    ).toBe('https://saltmarsh.example/mine')
  })

  it('keeps what is stored where that is chosen, on the routes screen', async () => {
    const { page } = light
    await page.goto(`${server.office}/campaigns/1/routes?view=settings`)
    await page.getByLabel('Note').fill('my note')
    const { version } = await api<Made>(page, 'GET', `/routes/${String(code.routeId)}`)
    await api(page, 'PATCH', `/routes/${String(code.routeId)}`, { version, note: 'their note' })
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByRole('button', { name: 'Keep the stored version' }).click()
    await page.getByText('Everything is saved.').waitFor()
    await expect.poll(() => page.getByLabel('Note').inputValue()).toBe('their note')
    await page.getByRole('list', { name: 'Changes' }).getByText('changed the note to “their note”').waitFor()
  })
})

describe('what goes wrong on the way', () => {
  it('a lost connection keeps what was typed and says so', async () => {
    const { page } = light
    await openScreen(page, '/campaigns/1/plan?code=2')
    await page.getByLabel('Place').fill('East pier')
    await page.context().setOffline(true)
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByText('What you typed is still here').waitFor()
    expect(await page.getByLabel('Place').inputValue()).toBe('East pier')
    await page.context().setOffline(false)
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByText('Everything is saved.').waitFor()
    await page.getByRole('list', { name: 'Changes' }).getByText('changed the place to “East pier”').waitFor()
  })

  it('an address of nothing says so', async () => {
    const { page } = light
    await openScreen(page, '/campaigns/999/plan')
    await page.getByText('There is no such campaign').waitFor()
  })
})

describe('routes and campaigns', () => {
  it('a route is added, shared by a new piece, and paused for all its pieces', async () => {
    const { page } = light
    await openScreen(page, '/campaigns/1/routes')
    await page.getByRole('heading', { name: 'Routes', level: 1 }).waitFor()
    await page.keyboard.press('n')
    await page.getByRole('heading', { name: 'New route' }).waitFor()
    await page.getByLabel('Name').fill('Winter page')
    await page.getByLabel('Destination').fill('ftp://saltmarsh.example')
    await page.keyboard.press('Enter')
    await page.getByText('Phones can only be sent to a web page').waitFor()
    await page.getByLabel('Destination').fill('https://saltmarsh.example/winter')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Settings and changes' }).click()
    await page.getByText('No piece uses this route yet').waitFor()

    await openScreen(page, '/campaigns/1/plan?new')
    await page.getByLabel('Name of the piece').fill('Winter poster')
    await page.getByRole('combobox', { name: 'Medium' }).fill('print')
    await page.getByRole('combobox', { name: 'Source' }).fill('poster')
    await page.getByLabel('Leads', { exact: true }).click()
    await page.getByRole('option', { name: 'where “Winter page” leads' }).click()
    await page.getByRole('button', { name: /^More/ }).click()
    await page.getByLabel('Short link', { exact: true }).fill('winter')
    await page.getByText('/WINTER is free.').waitFor()
    await page.getByRole('button', { name: 'Add piece' }).click()
    await page
      .getByRole('complementary', { name: 'Winter poster' })
      .getByText('/WINTER', { exact: false })
      .first()
      .waitFor()
    const follow = () => fetch(`${server.door}/winter`, { redirect: 'manual' })
    expect((await follow()).status).toBe(302)

    await openScreen(page, '/campaigns/1/routes')
    await page.getByText('Winter page').first().click()
    await page.getByRole('button', { name: 'Settings and changes' }).click()
    await page.getByLabel('State', { exact: true }).click()
    await page.getByRole('option', { name: /^Paused/ }).click()
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByRole('list', { name: 'Changes' }).getByText('paused it').waitFor()
    expect((await follow()).status).toBe(404)
  })

  it('a campaign’s settings change, and a newer save of somebody else is shown first', async () => {
    const { page } = light
    await openScreen(page, '/campaigns/1/plan')
    await page.getByRole('button', { name: 'Campaign settings' }).click()
    await page.getByLabel('Campaign value').fill('seals-27')
    await api(page, 'PATCH', '/campaigns/1', { version: 1, name: 'Seals, renamed' })
    await page.getByRole('button', { name: 'Save' }).click()
    await page.getByRole('cell', { name: 'Seals, renamed' }).waitFor()
    await expectAccessible(page)
    await page.getByRole('button', { name: 'Overwrite with mine' }).click()
    await page.getByRole('dialog').waitFor({ state: 'hidden' })
    expect((await api<{ utmCampaign: string }>(page, 'GET', '/campaigns/1')).utmCampaign).toBe('seals-27')
  })

  it('results of one piece, one route and the whole campaign are a choice apart', async () => {
    const { page } = light
    await fetch(`${server.door}/${(await api<{ slug: string }>(page, 'GET', '/codes/1')).slug}`, {
      redirect: 'manual',
      headers: { 'user-agent': 'Mozilla/5.0 (Android 15; Mobile; rv:140.0) Gecko/140.0 Firefox/140.0' },
    })
    await openScreen(page, '/campaigns/1/results')
    await page.getByRole('img', { name: /^Scans by day: 1 scan,/ }).waitFor()
    for (const [choice, label] of [
      ['Winter poster', '0 scans'],
      ['Café coaster', '1 scan'],
      [/^Seal/, '1 scan'],
      ['All campaigns', '1 scan'],
    ] as const) {
      await page.getByRole('combobox', { name: /^Results of/ }).click()
      await page.getByRole('option', { name: choice }).first().click()
      await page.getByRole('img', { name: `Scans by day: ${label},`, exact: false }).waitFor()
    }
    await page.getByRole('combobox', { name: 'By', exact: true }).click()
    await page.getByRole('option', { name: 'Hour', exact: true }).click()
    await page.getByRole('heading', { name: 'Scans by hour' }).waitFor()
    expect(new URL(page.url()).pathname + new URL(page.url()).search).toBe('/results?by=hour')
  })

  it('the colours follow the person’s choice', async () => {
    const { page } = light
    await openScreen(page, '/')
    await page.getByRole('heading', { name: 'Desk', level: 1 }).waitFor()
    const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor)
    expect(await ground()).toBe('rgb(250, 248, 243)')
    await page.getByRole('button', { name: 'Menu of Anna Petersen' }).click()
    await page.getByRole('menuitem', { name: 'Colours: as the system' }).click()
    await page.getByRole('menuitem', { name: 'Colours: light' }).click()
    await page.getByRole('menuitem', { name: 'Colours: dark' }).waitFor()
    expect(await ground()).toBe('rgb(20, 25, 28)')
    await page.getByRole('menuitem', { name: 'Colours: dark' }).click()
  })
})
