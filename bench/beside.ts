import { spawn } from 'node:child_process'
import { get } from 'node:http'
import { setPriority } from 'node:os'
import { at, median, ascending } from './figures.ts'
import { startPhones } from './paced.ts'
import { answers } from './startServer.ts'

/** What is wanted: p99 beside the office's work, against p99 of the quiet door in the same run. */
const WANTED = 1.3
const IMPORT_ROWS = 10_000
const MOVED = 20_000
const SCREENS = 50
const ROUNDS = 3
const BROWSERS_NICE = 10
/** What was fired before is to be in the database, not in its log. */
const SETTLE_MS = 15_000

interface Import {
  id: number
  stage: string
  sentence: string
}

/** The front door at a steady pace while the office is quiet, and beside each heavy thing it can be asked for. */
export async function measureBesideOffice(
  ports: { office: number; door: number },
  slugs: readonly string[],
  perSecond: number,
  seconds: number,
  only = '',
): Promise<void> {
  const office = `http://localhost:${String(ports.office)}`
  await answers(ports.office, 'The office')
  const phones = await startPhones({ port: ports.door, slugs, perSecond })
  // From here on this process is the office's browsers: in life they are machines of their own, and take nothing from the door.
  setPriority(BROWSERS_NICE)
  const signedIn = await fetch(`${office}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'bench@saltmarsh.example', password: 'bench bench bench' }),
  })
  const cookie = signedIn.headers.get('set-cookie')?.split(';', 1)[0] ?? ''
  async function ask<T>(method: string, path: string, body?: string, type = 'application/json'): Promise<T> {
    const answer = await fetch(`${office}/api${path}`, {
      method,
      body: body ?? null,
      headers: { cookie, ...(body === undefined ? {} : { 'content-type': type }) },
    })
    const text = await answer.text()
    if (!answer.ok) throw new Error(`${method} ${path}: ${text.slice(0, 300)}`)
    return (answer.headers.get('content-type')?.includes('json') ? JSON.parse(text) : text) as T
  }
  const rest = (ms: number) =>
    new Promise<void>((resolve) => {
      setTimeout(resolve, ms)
    })
  const campaign = (name: string) =>
    ask<{ id: number }>(
      'POST',
      '/campaigns',
      JSON.stringify({ name, zone: 'Europe/Berlin', utmCampaign: name }),
    )
  /** Does something over and over for as long as a round takes. @returns how often */
  const over = (what: () => Promise<unknown>) => async () => {
    const end = performance.now() + seconds * 1000
    let times = 0
    for (; performance.now() < end; times++) await what()
    return `${String(times)} times`
  }

  let [imports, moved] = [0, 0]
  async function importRows(): Promise<string> {
    const name = `imported-${String(++imports)}`
    const { id } = await campaign(name)
    const lines = Array.from(
      { length: IMPORT_ROWS },
      (_, i) =>
        `${name}-${String(i)},Table card ${String(i)},print,table-card,card-${String(i)},30,https://saltmarsh.example/menu/${String(i % 50)}`,
    )
    const read = await ask<Import>(
      'POST',
      `/imports?campaignId=${String(id)}&name=bench.csv`,
      ['Key,Piece,Medium,Source,Content,Size mm,Destination', ...lines].join('\r\n'),
      'application/octet-stream',
    )
    let state = await ask<Import>(
      'POST',
      `/imports/${String(read.id)}/runs`,
      JSON.stringify({ lines: 'all' }),
    )
    while (state.stage === 'running') {
      await rest(50)
      state = await ask<Import>('GET', `/imports/${String(read.id)}`)
    }
    if (state.stage !== 'done') throw new Error(state.sentence)
    return `${String(IMPORT_ROWS)} rows`
  }

  async function move(): Promise<string> {
    const { id } = await campaign(`elsewhere-${String(moved)}`)
    await ask(
      'POST',
      '/codes/moves',
      JSON.stringify({
        ids: Array.from({ length: MOVED }, (_, i) => moved * MOVED + i + 1),
        campaignId: id,
        routeId: null,
      }),
    )
    moved++
    return `${String(MOVED)} pieces`
  }

  /** A stream of what happens, opened as a screen opens it, and the sums read anew as often as a screen reads them. */
  async function screens(): Promise<string> {
    let bytes = 0
    const open = Array.from({ length: SCREENS }, () => {
      const asking = get(`${office}/api/events`, { headers: { cookie } }, (response) => {
        response
          .on('data', (part: Buffer) => {
            bytes += part.length
          })
          .on('error', () => undefined)
      })
      return asking.on('error', () => undefined)
    })
    await Promise.all(
      Array.from({ length: SCREENS }, async (_, i) => {
        await rest(i * 200)
        await over(async () => {
          await ask('POST', '/figures', screenOf(30))
          await ask('GET', '/campaigns?pageSize=50')
          await rest(15_000)
        })()
      }),
    )
    for (const each of open) each.destroy()
    return `${String(SCREENS)} screens, ${String(Math.round(bytes / 1024))} kB`
  }

  async function csv(): Promise<void> {
    const { body } = await fetch(`${office}/api/scans.csv?campaignId=1`, { headers: { cookie } })
    const reader = body?.getReader()
    for (let part = await reader?.read(); part && !part.done; part = await reader?.read())
      bytesRead += part.value.length
  }
  let bytesRead = 0

  /** What an open screen of results asks, of so many days. */
  const screenOf = (days: number) =>
    JSON.stringify({
      campaignId: 1,
      from: new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10),
      to: new Date().toISOString().slice(0, 10),
      against: 'before',
      questions: ['week', 'country', 'city', 'device', 'language', 'piece'].map((each) => ({ by: [each] })),
    })

  /** What the machine itself makes of two busy cores: nothing of Flimbo's is done, at the priority its office has. */
  async function loops(): Promise<string> {
    const children = [0, 1].map(() =>
      spawn('nice', ['-n', String(BROWSERS_NICE), process.execPath, '-e', 'for (;;);'], { stdio: 'ignore' }),
    )
    await rest(seconds * 1000)
    for (const child of children) child.kill('SIGKILL')
    return 'two loops'
  }

  const quiet = () => rest(seconds * 1000).then(() => '')
  const works: readonly (readonly [name: string, work: () => Promise<string>])[] = [
    ['importing', importRows],
    ['moving', move],
    [
      'heavy results',
      over(() =>
        Promise.all([
          ask('POST', '/figures', screenOf(2000)),
          ask('GET', '/codes?campaignId=1&pageSize=500&sort=scans&order=desc'),
        ]),
      ),
    ],
    ['a CSV of all scans', over(csv)],
    ['live screens', screens],
    ['nothing but loops', loops],
  ]

  console.log(
    `\nThe door at ${String(perSecond)} scans/s, each thing beside the quiet door just before it (p99 wanted: at most ${String(WANTED)} times)`,
  )
  await rest(SETTLE_MS)
  await phones.while(quiet())
  for (const [name, work] of works.filter(([each]) => only === '' || each.includes(only))) {
    const rounds: { still: number[]; busy: number[]; others: number; did: string; seconds: number }[] = []
    // The machine's pace drifts from minute to minute: each round is compared with the quiet just before it.
    for (let round = 0; round < ROUNDS; round++) {
      const { latencies: still } = await phones.while(quiet())
      const began = performance.now()
      const working = work()
      const busy = await phones.while(working)
      rounds.push({
        still: ascending(still),
        busy: ascending(busy.latencies),
        others: busy.others,
        did: await working,
        seconds: (performance.now() - began) / 1000,
      })
      await rest(1000)
    }
    const shown = (all: readonly number[]) =>
      `p50 ${at(all, 0.5).toFixed(2)}  p99 ${at(all, 0.99).toFixed(2)}  longest ${(all.at(-1) ?? 0).toFixed(0)} ms`
    const together = (which: 'still' | 'busy') => ascending(rounds.flatMap((each) => each[which]))
    const ratios = ascending(rounds.map(({ still, busy }) => at(busy, 0.99) / at(still, 0.99)))
    console.log(
      `${name.padEnd(20)} ${shown(together('busy'))}   quiet: ${shown(together('still'))}   p99 ${median(ratios).toFixed(2)} times, the median of ${ratios.map((each) => each.toFixed(2)).join(' ')}`,
    )
    console.log(
      `${''.padEnd(20)} ${rounds.map(({ did, seconds: took }) => `${did} in ${took.toFixed(1)} s`).join('; ')}; ${String(rounds.reduce((sum, { others }) => sum + others, 0))} not 302`,
    )
  }
  if (bytesRead > 0) console.log(`${String(Math.round(bytesRead / 2 ** 20))} MB of CSV`)
  phones.close()
}
