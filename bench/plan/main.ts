// npm run bench -- plan: importing 10,000 rows against bare prepared inserts of the same rows, alternating in one
// run, and opening and scrolling a plan of 50,000 pieces in the browser.
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import type { Page } from 'playwright-core'
import { median } from '../figures.ts'
import { fillCodes } from '../fill.ts'
import { openBrowser } from '../../e2e/browser.ts'
import { bareInserts } from './bare.ts'

const { values } = parseArgs({
  options: {
    rows: { type: 'string', default: '10000' },
    pieces: { type: 'string', default: '50000' },
    rounds: { type: 'string', default: '5' },
  },
})
const [rows, pieces, rounds] = [values.rows, values.pieces, values.rounds].map(Number) as [
  number,
  number,
  number,
]
const dataDir = mkdtempSync(join(tmpdir(), 'flimbo-bench-plan-'))
const file = join(dataDir, 'flimbo.sqlite')
const office = 'http://localhost:4290'
const shown = (n: number) => Math.round(n).toLocaleString('en-GB')

/** A plan as people hand one in: every piece with a key, tags, a size and one of fifty destinations. */
function planFile(round: number): string {
  const lines = Array.from(
    { length: rows },
    (_, i) =>
      `r${String(round)}-${String(i)},Table card ${String(i)},print,table-card,card-${String(i)},30,https://saltmarsh.example/menu/${String(i % 50)},Inn ${String(i % 200)}`,
  )
  return ['Key,Piece,Medium,Source,Content,Size mm,Destination,Place', ...lines].join('\r\n')
}

async function serverUp(): Promise<() => Promise<void>> {
  const child = spawn(process.execPath, ['server/dist/main.js'], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      FLIMBO_OFFICE_PORT: '4290',
      FLIMBO_DOOR_PORT: '4291',
      FLIMBO_DATA_DIR: dataDir,
      FLIMBO_LOG_LEVEL: 'error',
      FLIMBO_CHECK_HOUR: 'off',
    },
  })
  while (
    !(await fetch(`${office}/api/session`).then(
      ({ ok }) => ok,
      () => false,
    ))
  )
    await new Promise((resolve) => setTimeout(resolve, 50))
  return () =>
    new Promise((resolve) => {
      child.once('exit', () => {
        resolve()
      })
      child.kill('SIGTERM')
    })
}

interface Import {
  id: number
  stage: string
  done: number
  counts: Record<string, number>
  sentence: string
}

async function ask<T>(
  cookie: string,
  method: string,
  path: string,
  body?: BodyInit,
  type = 'application/json',
): Promise<T> {
  const answer = await fetch(`${office}/api${path}`, {
    method,
    body: body ?? null,
    headers: { cookie, ...(body === undefined ? {} : { 'content-type': type }) },
  })
  if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`)
  return (await answer.json()) as T
}

/** Milliseconds of the dry run and of the import itself. */
async function importOnce(
  cookie: string,
  campaignId: number,
  round: number,
): Promise<{ dry: number; run: number }> {
  const began = performance.now()
  const read = await ask<Import>(
    cookie,
    'POST',
    `/imports?campaignId=${String(campaignId)}&name=bench.csv`,
    planFile(round),
    'application/octet-stream',
  )
  const dry = performance.now() - began
  if (read.counts.create !== rows) throw new Error(JSON.stringify(read.counts))
  const from = performance.now()
  let state = await ask<Import>(
    cookie,
    'POST',
    `/imports/${String(read.id)}/runs`,
    JSON.stringify({ lines: 'all' }),
  )
  while (state.stage === 'running') {
    await new Promise((resolve) => setTimeout(resolve, 5))
    state = await ask<Import>(cookie, 'GET', `/imports/${String(read.id)}`)
  }
  if (state.stage !== 'done') throw new Error(state.sentence)
  return { dry, run: performance.now() - from }
}

/** Milliseconds until the first row stands, and of the longest and the median frame while 50,000 rows are scrolled through. */
async function scrolling(page: Page, campaignId: number) {
  const began = performance.now()
  await page.goto(`${office}/campaigns/${String(campaignId)}/plan`)
  await page.getByRole('gridcell', { name: 'Piece 0', exact: true }).waitFor()
  const opened = performance.now() - began
  // As text: the transpiler would put helpers into the function that the page does not have.
  const frames: number[] = await page.evaluate(`new Promise((resolve) => {
    const grid = document.querySelector('[role=grid]')
    const times = []
    let last = performance.now()
    requestAnimationFrame(function step(now) {
      times.push(now - last)
      last = now
      if (times.length > 240) { resolve(times); return }
      grid.scrollTop += 900
      requestAnimationFrame(step)
    })
  })`)
  const jump = performance.now()
  await page.getByRole('grid').focus()
  await page.keyboard.press('Control+ArrowDown')
  await page.getByRole('gridcell', { name: `Piece ${String(pieces - 1)}`, exact: true }).waitFor()
  return { opened, median: median(frames), longest: Math.max(...frames), jump: performance.now() - jump }
}

console.log(
  `${String(cpus().length)} cores (${cpus()[0]?.model ?? ''}), Node.js ${process.version}; ${shown(rows)} rows a file, ${String(rounds)} rounds, alternating; a plan of ${shown(pieces)} pieces`,
)
await fillCodes(file, pieces)
const stop = await serverUp()
try {
  const signed = await fetch(`${office}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'bench@saltmarsh.example', password: 'bench bench bench' }),
  })
  const cookie = signed.headers.get('set-cookie')?.split(';', 1)[0] ?? ''
  const [dry, imported, bare]: [number[], number[], number[]] = [[], [], []]
  for (let round = 0; round < rounds; round++) {
    const { id } = await ask<{ id: number }>(
      cookie,
      'POST',
      '/campaigns',
      JSON.stringify({
        name: `Round ${String(round)}`,
        zone: 'Europe/Berlin',
        utmCampaign: `round-${String(round)}`,
      }),
    )
    const times = await importOnce(cookie, id, round)
    dry.push(times.dry)
    imported.push(times.run)
    bare.push(bareInserts(file, id))
  }
  const list = (times: readonly number[]) => times.map((each) => shown(each)).join(', ')
  console.log(
    `dry run          ${shown(median(dry))} ms   ${shown((rows / median(dry)) * 1000)} rows/s   (rounds: ${list(dry)})`,
  )
  console.log(
    `import           ${shown(median(imported))} ms   ${shown((rows / median(imported)) * 1000)} rows/s   (rounds: ${list(imported)})`,
  )
  console.log(
    `bare inserts     ${shown(median(bare))} ms   ${shown((rows / median(bare)) * 1000)} rows/s   (rounds: ${list(bare)})`,
  )
  console.log(`import / bare    ${(median(imported) / median(bare)).toFixed(2)} times   (wanted: within 5)`)

  const browser = await openBrowser()
  const page = browser.pages()[0] ?? (await browser.newPage())
  await page.goto(office)
  await page.getByLabel('E-mail address').fill('bench@saltmarsh.example')
  await page.getByLabel('Password').fill('bench bench bench')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('heading', { name: 'Desk' }).waitFor()
  const seen = await scrolling(page, 1)
  console.log(`open the plan    ${shown(seen.opened)} ms to the first row of ${shown(pieces)}`)
  console.log(
    `scroll it        ${seen.median.toFixed(1)} ms a frame (median), ${seen.longest.toFixed(1)} ms the longest of 240, 900 px a frame`,
  )
  console.log(`to the last row  ${shown(seen.jump)} ms`)
  await browser.close()
} finally {
  await stop()
  rmSync(dataDir, { recursive: true, force: true })
}
