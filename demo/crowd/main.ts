// npm run crowd -- --scans 1000: people and programs follow the sample's short links over HTTP.
import { Agent, request } from 'node:http'
import { parseArgs } from 'node:util'
import { en, Faker } from '@faker-js/faker'
import { CAMPAIGNS } from '../scenario/pieces.ts'
import { randomPasser, program, PROGRAM_SHARE, type Passer } from './people.ts'

const { values } = parseArgs({
  options: {
    scans: { type: 'string', default: '1000' },
    seed: { type: 'string', default: String(Date.now()) },
    door: {
      type: 'string',
      default: process.env.FLIMBO_DOOR_URL ?? `http://localhost:${process.env.FLIMBO_DOOR_PORT ?? '4001'}`,
    },
    slugs: { type: 'string', default: '' },
    /** Scans a second; 0 is as fast as the front door answers. */
    pace: { type: 'string', default: '0' },
    /** Goes on until it is stopped: one scan now and then, so many seconds apart on average; 0 for no such crowd. */
    gentle: { type: 'string', default: '0' },
  },
})
const whole = (name: 'scans' | 'seed' | 'pace' | 'gentle'): number => {
  const n = Number(values[name])
  if (Number.isInteger(n) && n >= 0) return n
  console.error(`--${name} takes a whole number, not ${values[name]}`)
  process.exit(2)
}
const AT_ONCE = 16
const faker = new Faker({ locale: en, seed: whole('seed') })
const pieces =
  values.slugs === ''
    ? // Pieces on a domain of their own are not found on the front door's address.
      CAMPAIGNS.filter(({ host }) => host === undefined)
        .flatMap(({ routes }) => routes.flatMap((route) => route.pieces))
        .filter(({ weekly }) => weekly > 0)
        .map(({ slug, weekly }) => ({ value: slug, weight: weekly }))
    : values.slugs.split(',').map((slug) => ({ value: slug, weight: 1 }))
const agent = new Agent({ keepAlive: true, maxSockets: AT_ONCE })
const door = new URL(values.door)

function scan(slug: string, who: Passer): Promise<number> {
  return new Promise((resolve, reject) => {
    request(
      new URL(`/${slug}`, door),
      {
        agent,
        headers: {
          'user-agent': who.userAgent,
          'x-forwarded-for': who.address,
          ...(who.acceptLanguage ? { 'accept-language': who.acceptLanguage } : {}),
        },
      },
      (response) => {
        response.resume()
        response.on('end', () => {
          resolve(response.statusCode ?? 0)
        })
      },
    )
      .on('error', reject)
      .end()
  })
}

const answers = new Map<number, number>()
const total = whole('scans')
const pace = whole('pace')
let given = 0
const began = Date.now()

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))
const someone = () => (faker.number.float() < PROGRAM_SHARE ? program(faker) : randomPasser(faker))

async function walk(): Promise<void> {
  while (given < total) {
    given++
    const status = await scan(faker.helpers.weightedArrayElement(pieces), someone())
    answers.set(status, (answers.get(status) ?? 0) + 1)
    if (pace > 0) await pause((1000 * AT_ONCE) / pace)
  }
}

/** People who come by one after the other, at no fixed times (a Poisson process). */
async function stroll(seconds: number): Promise<never> {
  for (;;) {
    await pause(-Math.log(1 - faker.number.float()) * seconds * 1000)
    // The front door may be stopped or not yet be there; whoever comes next tries again.
    await scan(faker.helpers.weightedArrayElement(pieces), someone()).catch(() => undefined)
  }
}

const gentle = whole('gentle')
if (gentle > 0) await stroll(gentle)

try {
  await Promise.all(Array.from({ length: AT_ONCE }, walk))
} catch (error) {
  console.error(
    `The front door at ${door.origin} does not answer: ${error instanceof Error ? error.message : String(error)}. Start it with: npm run demo`,
  )
  process.exit(1)
}
agent.destroy()
const seconds = (Date.now() - began) / 1000
console.log(
  `${total.toLocaleString('en-GB')} scans in ${seconds.toFixed(1)} s: ${[...answers]
    .sort()
    .map(([status, n]) => `${n.toLocaleString('en-GB')} × ${String(status)}`)
    .join(', ')}`,
)
