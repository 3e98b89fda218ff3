// npm run bench -- door: the front door against bare redirects of Express 5 and of `node:http`, alternating, in one run; then at a steady
// pace beside what the office does. `--rounds 0` leaves out the first part, `--only importing` all of the second but that.
import type { ChildProcess } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { NO_RULES } from '@flimbo/core/routing'
import { readConfig } from '@flimbo/server/config'
import { at, median, ascending } from '../figures.ts'
import { fillCodes } from '../fill.ts'
import { startServer } from '../startServer.ts'
import { measureBesideOffice } from '../beside.ts'
import { fire, type Shots } from './fire.ts'
import { TWENTY_LANES } from './twentyLanes.ts'

const { values } = parseArgs({
  options: {
    codes: { type: 'string', default: '100000' },
    seconds: { type: 'string', default: '4' },
    rounds: { type: 'string', default: '8' },
    connections: { type: 'string', default: '64' },
    pace: { type: 'string', default: '400' },
    beside: { type: 'string', default: '12' },
    only: { type: 'string', default: '' },
  },
})
const [codes, seconds, rounds, connections, pace, beside] = [
  values.codes,
  values.seconds,
  values.rounds,
  values.connections,
  values.pace,
  values.beside,
].map(Number) as [number, number, number, number, number, number]
const dataDir = mkdtempSync(join(tmpdir(), 'flimbo-bench-'))
const PORTS = { office: 4193, door: 4191 }
const env = {
  ...process.env,
  NODE_ENV: 'production',
  FLIMBO_OFFICE_PORT: String(PORTS.office),
  FLIMBO_DOOR_PORT: String(PORTS.door),
  FLIMBO_DATA_DIR: dataDir,
  FLIMBO_TRUST_PROXY: 'loopback',
  FLIMBO_LOG_LEVEL: 'error',
}
const EXPRESS_PORT = 4192
const HTTP_PORT = 4194
/** Every short link that is fired at has been asked for once by then, and both servers are compiled. */
const WARM_SECONDS = 15

/** Resident memory of a process and of those it started, now and at its highest, as the kernel counts it. */
function memoryOf({ pid = 0 }: ChildProcess): string {
  const started = readFileSync(`/proc/${String(pid)}/task/${String(pid)}/children`, 'utf8')
    .trim()
    .split(' ')
    .filter(Boolean)
  const megabytes = (name: string) =>
    [String(pid), ...started].map((each) =>
      Math.round(
        Number(
          new RegExp(`${name}:\\s+(\\d+)`).exec(readFileSync(`/proc/${each}/status`, 'utf8'))?.[1] ?? 0,
        ) / 1024,
      ),
    )
  const shown = (parts: readonly number[]) =>
    `${String(parts.reduce((sum, n) => sum + n, 0))} MB${parts.length > 1 ? ` (${parts.join(' + ')})` : ''}`
  return `${shown(megabytes('VmRSS'))}, at most ${shown(megabytes('VmHWM'))}`
}

function report(name: string, shots: readonly Shots[]): void {
  const rate = median(shots.map((each) => each.rate))
  const all = ascending(shots.flatMap((each) => [...each.latencies]))
  console.log(
    `${name.padEnd(34)} ${Math.round(rate).toLocaleString('en-GB').padStart(8)} redirects/s   p50 ${at(all, 0.5).toFixed(2)} ms   p99 ${at(all, 0.99).toFixed(2)} ms   (rounds: ${shots.map((each) => Math.round(each.rate).toLocaleString('en-GB')).join(', ')})`,
  )
}

function reportRounds(
  door: readonly Shots[],
  lanes: readonly Shots[],
  express: readonly Shots[],
  http: readonly Shots[],
): void {
  report('front door, no lanes', door)
  report('front door, 20 lanes, 10 by place', lanes)
  report('bare Express 5 res.redirect', express)
  report('bare node:http', http)
  // The machine's pace drifts from minute to minute, so each round is compared with the one beside it.
  const compare = (name: string, ours: readonly Shots[], theirs: readonly Shots[], wanted: string) => {
    const ratios = ascending(ours.map(({ rate }, i) => rate / (theirs[i]?.rate ?? Infinity)))
    console.log(
      `${name}: ${median(ratios).toFixed(2)}, the median of ${ratios.map((ratio) => ratio.toFixed(2)).join(' ')} (wanted: ${wanted})`,
    )
  }
  compare('no lanes against bare Express', door, express, 'at least 2.5')
  compare('no lanes against bare node:http', door, http, 'at least 0.45')
  compare('20 lanes against bare Express', lanes, express, 'at least 1.5')
  compare('20 lanes against none', lanes, door, 'at least 0.75')
}

const { databaseFile } = readConfig(env)
console.log(
  `${String(cpus().length)} cores (${cpus()[0]?.model ?? ''}), Node.js ${process.version}; ${codes.toLocaleString('en-GB')} codes, ${String(connections)} connections, ${String(rounds)} rounds of ${String(seconds)} s each, alternating`,
)
// Half of the codes are on routes that send everybody to one page, half on routes with 20 lanes.
const slugs = await fillCodes(databaseFile, codes, (code) => (code < codes / 2 ? NO_RULES : TWENTY_LANES))
const [plain, laned] = [slugs.slice(0, codes / 2), slugs.slice(codes / 2)]
const flimbo = await startServer('server/dist/main.js', PORTS.door, env)
const bare = await startServer(fileURLToPath(new URL('bare-express.ts', import.meta.url)), EXPRESS_PORT, env)
const bareHttp = await startServer(fileURLToPath(new URL('bare-http.ts', import.meta.url)), HTTP_PORT, env)

try {
  const door: Shots[] = []
  const lanes: Shots[] = []
  const express: Shots[] = []
  const http: Shots[] = []
  // Thrown away: both compile their hot paths, and the door reads its short links from the database.
  await fire(PORTS.door, plain, connections, WARM_SECONDS)
  await fire(PORTS.door, laned, connections, WARM_SECONDS)
  if (rounds > 0) await fire(EXPRESS_PORT, slugs, connections, WARM_SECONDS)
  if (rounds > 0) await fire(HTTP_PORT, slugs, connections, WARM_SECONDS)
  for (let round = 0; round < rounds; round++) {
    door.push(await fire(PORTS.door, plain, connections, seconds))
    lanes.push(await fire(PORTS.door, laned, connections, seconds))
    express.push(await fire(EXPRESS_PORT, slugs, connections, seconds))
    http.push(await fire(HTTP_PORT, slugs, connections, seconds))
  }
  if (rounds > 0) reportRounds(door, lanes, express, http)
  console.log(`memory of the server: ${memoryOf(flimbo)}; of bare Express: ${memoryOf(bare)}`)
  console.log(
    `answers other than 302: ${String([...door, ...lanes, ...express, ...http].reduce((sum, each) => sum + each.others, 0))}`,
  )
  if (beside > 0) await measureBesideOffice(PORTS, plain, pace, beside, values.only)
} finally {
  flimbo.kill('SIGTERM')
  bare.kill('SIGKILL')
  bareHttp.kill('SIGKILL')
  await new Promise((resolve) => flimbo.once('exit', resolve))
  rmSync(dataDir, { recursive: true, force: true })
}
