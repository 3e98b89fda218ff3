import { z } from 'zod'
import { resolve } from 'node:path'
import proxyaddr from 'proxy-addr'
import { readUrl } from '@flimbo/core/api'
import { mailFault } from '@flimbo/core/contents'

const port = (fallback: number) =>
  z.coerce
    .number({ error: 'must be a port number' })
    .int()
    .min(0, 'must be a port number')
    .max(65_535, 'must be a port number')
    .default(fallback)

const origin = z
  .string()
  .refine(
    (text) => /^https?:$/.test(readUrl(text)?.protocol ?? ''),
    'must be an origin such as https://go.example.com',
  )
  .refine((text) => {
    const url = readUrl(text)
    return !url || (url.pathname === '/' && url.search === '')
  }, 'must be an origin without a path')
  .transform((text) => new URL(text).origin)

const onOff = z.enum(['on', 'off'], { error: 'must be on or off' }).transform((word) => word === 'on')

const mailAddress = z
  .string()
  .refine((text) => mailFault(text, '') === null, 'must be a mail address, such as office@example.com')

/** An address with a port, as resolvers take it. */
const nameServer = z
  .string()
  .regex(
    /^(\d+(\.\d+){3}|\[[0-9a-f:]+\])(:\d+)?$/i,
    'must be the address of a name server, such as 127.0.0.1:5353',
  )

function trustFrom(text: string): ((address: string, hop: number) => boolean) | null {
  try {
    return proxyaddr.compile(
      text
        .split(',')
        .map((part) => part.trim())
        .filter(Boolean),
    )
  } catch {
    return null
  }
}

/** So many addresses of proxies are remembered: each scan comes from one of a few. */
const PROXIES_MAX = 1000

/** Trust goes by the address alone: it is worked out once for each. */
function remembered(trust: ReturnType<typeof trustFrom>): ReturnType<typeof trustFrom> {
  if (trust === null) return null
  const known = new Map<string, boolean>()
  return (address, hop) => {
    const there = known.get(address)
    if (there !== undefined) return there
    if (known.size >= PROXIES_MAX) known.clear()
    const isTrusted = trust(address, hop)
    known.set(address, isTrusted)
    return isTrusted
  }
}

const trustProxy = z
  .string()
  .default('')
  .refine(
    (text) => text === '' || trustFrom(text) !== null,
    'must list addresses, networks such as 10.0.0.0/8, or loopback, parted by commas',
  )

const variables = z.strictObject({
  FLIMBO_OFFICE_PORT: port(4000),
  FLIMBO_DOOR_PORT: port(4001),
  FLIMBO_DOORS: z.coerce
    .number({ error: 'must be a number of front doors from 1 to 16' })
    .int()
    .min(1, 'must be a number of front doors from 1 to 16')
    .max(16, 'must be a number of front doors from 1 to 16')
    .default(1),
  FLIMBO_STANDIN_PORT: port(4002),
  FLIMBO_DNS_STANDIN_PORT: port(4003),
  FLIMBO_SMTP_STANDIN_PORT: port(4004),
  FLIMBO_SMTP_HOST: z.string().min(1).optional(),
  FLIMBO_SMTP_PORT: port(587),
  FLIMBO_SMTP_TLS: z
    .enum(['starttls', 'tls', 'off'], { error: 'must be starttls, tls or off' })
    .default('starttls'),
  FLIMBO_SMTP_USER: z.string().default(''),
  FLIMBO_SMTP_PASSWORD: z.string().default(''),
  FLIMBO_SMTP_FROM: mailAddress.optional(),
  FLIMBO_SMTP_BOUNCE: mailAddress.optional(),
  FLIMBO_BIND: z.string().min(1, 'must be an address to listen on').default('127.0.0.1'),
  FLIMBO_OFFICE_URL: origin.optional(),
  FLIMBO_DOOR_URL: origin.optional(),
  FLIMBO_DATA_DIR: z.string().min(1, 'must be a directory').default('data'),
  FLIMBO_FILES_MB: z.coerce
    .number({ error: 'must be a number of megabytes' })
    .int()
    .min(1, 'must be a number of megabytes, at least 1')
    .max(10_000_000, 'must be a number of megabytes')
    .default(2000),
  FLIMBO_TRUST_PROXY: trustProxy,
  FLIMBO_STANDINS: onOff.default(false),
  FLIMBO_DNS: nameServer.optional(),
  FLIMBO_CHECK_PRIVATE: onOff.default(false),
  FLIMBO_CHECK_HOUR: z
    .union([
      z.literal('off'),
      z.coerce
        .number({ error: 'must be an hour from 0 to 23, or off' })
        .int()
        .min(0, 'must be an hour from 0 to 23, or off')
        .max(23, 'must be an hour from 0 to 23, or off'),
    ])
    .default(3),
  FLIMBO_LOG_LEVEL: z
    .enum(['fatal', 'error', 'warn', 'info', 'debug', 'silent'], {
      error: 'must be fatal, error, warn, info, debug or silent',
    })
    .default('info'),
})

/** How a mail server is reached, and under which addresses. */
export interface MailServer {
  readonly host: string
  readonly port: number
  /** `tls` from the first byte on, `starttls` after a greeting and nothing without it, or not at all. */
  readonly tls: 'starttls' | 'tls' | 'off'
  /** Empty where nobody signs in. Neither of the two ever leaves the server. */
  readonly user: string
  readonly password: string
  readonly from: string
  /** Where what cannot be delivered goes back to (RFC 5321: the reverse-path). */
  readonly bounce: string
}

export interface Config {
  readonly officePort: number
  readonly doorPort: number
  /** How many front doors share its port. */
  readonly doors: number
  readonly standInPort: number
  /** Of the DNS stand-in, over UDP. */
  readonly dnsStandInPort: number
  /** Of the mail stand-in (SMTP). */
  readonly smtpStandInPort: number
  /** Null for the mail stand-in where it runs, or else for none. */
  readonly mail: MailServer | null
  readonly bind: string
  /** Origin people reach the office under. */
  readonly officeUrl: string | null
  /** Origin that short links begin with. */
  readonly doorUrl: string | null
  readonly dataDir: string
  readonly databaseFile: string
  /** How much each workspace may upload in all, in bytes. */
  readonly filesQuotaBytes: number
  /** Tells whether a peer's word on where a request came from is taken; null where nobody's is. */
  readonly trust: ((address: string, hop: number) => boolean) | null
  readonly standIns: boolean
  /** Name server that domains are looked up by; null for the DNS stand-in where it runs, or else the machine's own. */
  readonly dns: string | null
  /** Whether destination checks may reach private addresses. */
  readonly checkPrivate: boolean
  /** Hour at which all destinations are checked, in each workspace's zone; null for never. */
  readonly checkHour: number | null
  readonly logLevel: string
}

/** A variable holds what it may not; the message is one line that names it. */
export class ConfigError extends Error {
  override readonly name = 'ConfigError'
}

/** @throws ConfigError where one setting of mail wants another; none of them is said that is secret */
function mailServerOf(v: z.output<typeof variables>): MailServer | null {
  const { FLIMBO_SMTP_HOST: host, FLIMBO_SMTP_FROM: from } = v
  if (host === undefined) return null
  if (from === undefined)
    throw new ConfigError('FLIMBO_SMTP_FROM: must be the address mails come from, such as office@example.com')
  if ((v.FLIMBO_SMTP_USER === '') !== (v.FLIMBO_SMTP_PASSWORD === ''))
    throw new ConfigError('FLIMBO_SMTP_USER and FLIMBO_SMTP_PASSWORD: give both, or neither')
  return {
    host,
    port: v.FLIMBO_SMTP_PORT,
    tls: v.FLIMBO_SMTP_TLS,
    user: v.FLIMBO_SMTP_USER,
    password: v.FLIMBO_SMTP_PASSWORD,
    from,
    bounce: v.FLIMBO_SMTP_BOUNCE ?? from,
  }
}

/** Where a port of this machine is found; null for port 0, which the system chooses when it is opened. */
const localAt = (port: number) => (port === 0 ? null : `http://localhost:${String(port)}`)

/**
 * Reads the FLIMBO_… variables; other variables are passed over, an unknown FLIMBO_… one is refused
 * because it is a misspelling. @throws ConfigError with one line
 */
export function readConfig(environment: Readonly<Record<string, string | undefined>>): Config {
  const own = Object.fromEntries(
    Object.entries(environment).filter(
      ([name, value]) => name.startsWith('FLIMBO_') && value !== undefined && value !== '',
    ),
  )
  const read = variables.safeParse(own)
  if (!read.success) {
    const issue = read.error.issues[0]
    if (issue?.code === 'unrecognized_keys')
      throw new ConfigError(`${issue.keys.join(', ')}: no such setting; see the table in README.md`)
    const name = String(issue?.path[0] ?? 'FLIMBO_…')
    throw new ConfigError(`${name}=${own[name] ?? ''}: ${issue?.message ?? 'wrong value'}`)
  }
  const v = read.data
  const mail = mailServerOf(v)
  const dataDir = resolve(v.FLIMBO_DATA_DIR)
  return {
    officePort: v.FLIMBO_OFFICE_PORT,
    doorPort: v.FLIMBO_DOOR_PORT,
    doors: v.FLIMBO_DOORS,
    standInPort: v.FLIMBO_STANDIN_PORT,
    dnsStandInPort: v.FLIMBO_DNS_STANDIN_PORT,
    smtpStandInPort: v.FLIMBO_SMTP_STANDIN_PORT,
    mail,
    bind: v.FLIMBO_BIND,
    officeUrl: v.FLIMBO_OFFICE_URL ?? localAt(v.FLIMBO_OFFICE_PORT),
    doorUrl: v.FLIMBO_DOOR_URL ?? localAt(v.FLIMBO_DOOR_PORT),
    dataDir,
    databaseFile: resolve(dataDir, 'flimbo.sqlite'),
    filesQuotaBytes: v.FLIMBO_FILES_MB * 1024 * 1024,
    trust: v.FLIMBO_TRUST_PROXY === '' ? null : remembered(trustFrom(v.FLIMBO_TRUST_PROXY)),
    standIns: v.FLIMBO_STANDINS,
    dns: v.FLIMBO_DNS ?? null,
    checkPrivate: v.FLIMBO_CHECK_PRIVATE,
    checkHour: v.FLIMBO_CHECK_HOUR === 'off' ? null : v.FLIMBO_CHECK_HOUR,
    logLevel: v.FLIMBO_LOG_LEVEL,
  }
}
