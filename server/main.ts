import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { startFlimbo } from './app.ts'
import { ConfigError, readConfig } from './config/index.ts'

/** From `server/dist/main.js` and from `server/main.ts` alike. */
const webDirectory = fileURLToPath(new URL(import.meta.url.endsWith('.ts') ? '../web/dist' : '../../web/dist', import.meta.url))

function configuration() {
  try {
    return readConfig(process.env)
  } catch (error) {
    if (!(error instanceof ConfigError)) throw error
    process.stderr.write(`${error.message}\n`)
    process.exit(78)
  }
}

/** What a log needs of an error, and nothing that was sent with the request. */
function briefly(error: unknown) {
  if (!(error instanceof Error)) return { message: String(error) }
  return { name: error.name, message: error.message, code: (error as { code?: unknown }).code, stack: error.stack }
}

const config = configuration()
const log = pino({ level: config.logLevel, serializers: { error: briefly } })

try {
  const flimbo = await startFlimbo(config, log, webDirectory)
  log.info({ office: config.officeUrl, door: config.doorUrl, ports: flimbo.ports }, 'Flimbo is running')
  let closing = false
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      if (closing) return
      closing = true
      log.info('stopping: open requests finish, queued scans are written')
      flimbo.close().then(() => { process.exit(0) }, (error: unknown) => {
        log.fatal({ error }, 'stopping failed')
        process.exit(1)
      })
    })
  }
} catch (error) {
  const { code, port } = error as { code?: string; port?: number }
  if (code === 'EADDRINUSE') log.fatal(`Port ${String(port)} is in use. Stop what uses it, or set FLIMBO_OFFICE_PORT, FLIMBO_DOOR_PORT or FLIMBO_STANDIN_PORT.`)
  else log.fatal({ error }, 'Flimbo could not start')
  process.exit(1)
}
