import { ConfigError, readConfig } from './config/index.ts'
import { migrate } from './database/index.ts'
import { addressesOf } from './line/index.ts'
import { openLog } from './log/index.ts'
import { startFlimbo } from './processes/supervisor.ts'

function configuration() {
  try {
    return readConfig(process.env)
  } catch (error) {
    if (!(error instanceof ConfigError)) throw error
    process.stderr.write(`${error.message}\n`)
    process.exit(78)
  }
}

const config = configuration()
const log = openLog(config.logLevel, 'supervisor')

try {
  const flimbo = await startFlimbo(config, log, migrate(config.databaseFile))
  const { office, door } = addressesOf(config, () => flimbo.ports)
  log.info({ office, door, ports: flimbo.ports }, 'Flimbo is running')
  // Whoever started it with a channel, such as a test, is told which ports the system chose.
  process.send?.({ kind: 'running', ports: flimbo.ports })
  let closing = false
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      if (closing) return
      closing = true
      log.info('stopping: open requests finish, queued scans are written')
      void flimbo.stop().then(() => {
        process.exit(0)
      })
    })
  }
} catch (error) {
  // Written at once: the log would be cut off by the exit.
  process.stderr.write(`Flimbo could not start. ${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
}
