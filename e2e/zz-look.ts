import { openBrowser } from './browser.ts'
const browser = await openBrowser()
const page = await browser.newPage()
page.on('console', (m) => {
  if (m.type() === 'error' || m.type() === 'warning') console.error('CONSOLE', m.text().slice(0, 400))
})
page.on('pageerror', (e) => console.error('PAGEERROR', e.message))
await page.goto('http://localhost:4100')
await page.getByLabel('E-mail address').fill('anna@saltmarsh.example')
await page.getByLabel('Password').fill('low tide at noon')
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByRole('heading', { name: 'Desk' }).waitFor()
const c = await page.evaluate(async () => {
  const { hits } = (await (await fetch('/api/find?q=PIERHALL')).json()) as {
    hits: { kind: string; campaignId: number }[]
  }
  return hits[0]?.campaignId
})
await page.goto(`http://localhost:4100/campaigns/${c}/pages`)
await page.getByRole('list', { name: 'Parts' }).waitFor()
await page.waitForTimeout(1200)
await page.screenshot({ path: '/tmp/shots/p1.png' })
await page.getByRole('button', { name: 'Stop 3: the seals' }).click()
await page
  .getByRole('button', { name: /^Text/ })
  .click()
  .catch((e) => console.error(String(e).slice(0, 200)))
await page.waitForTimeout(800)
await page.screenshot({ path: '/tmp/shots/p2.png' })
await page.goto(`http://localhost:4100/campaigns/${c}/pages?new`)
await page.waitForTimeout(800)
await page.screenshot({ path: '/tmp/shots/p3.png' })
await browser.close()
