import { chromium } from 'playwright-core'
const office = process.env.OFFICE ?? 'http://localhost:4000'
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
})
const context = await browser.newContext({
  viewport: { width: Number(process.env.W ?? 1280), height: Number(process.env.H ?? 800) },
  acceptDownloads: true,
  colorScheme: (process.env.SCHEME ?? 'light') as never,
})
const page = await context.newPage()
page.on('console', (m) => {
  if (['error', 'warning'].includes(m.type())) console.log('console', m.type(), m.text())
})
page.on('pageerror', (e) => console.log('pageerror', e.message))
page.setDefaultTimeout(10000)
if (!process.env.NOSIGN) {
  await page.goto(office)
  await page.getByLabel('E-mail').fill('anna@saltmarsh.example')
  await page.getByLabel('Password').fill('low tide at noon')
  await page.keyboard.press('Enter')
  await page
    .getByText('Desk')
    .first()
    .waitFor()
    .catch(() => undefined)
  await page.waitForTimeout(1500)
}
const shot = async (name: string) => {
  await page.screenshot({ path: `/tmp/look/${name}.png` })
}
try {
  const run = new Function(
    'page',
    'office',
    'shot',
    'context',
    `return (async () => { ${process.argv[2]} })()`,
  )
  await run(page, office, shot, context)
} catch (e) {
  console.log(String(e))
  await shot('error')
}
await browser.close()
