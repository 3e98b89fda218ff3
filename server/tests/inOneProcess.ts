import { pino } from 'pino'
import type { Config } from '../config/index.ts'
import { migrate } from '../database/index.ts'
import type { Ports } from '../line/index.ts'
import { listen, openDoor, openOffice, closeServer } from '../processes/index.ts'
import { openStandIns, standInsBy } from '../standins/index.ts'

/**
 * Front door, office and stand-ins in one process, with calls in the place of the line between them: what tests of
 * anything but the processes themselves run on, since it starts in an instant.
 */
export async function startInOneProcess(config: Config, webDirectory: string) {
  const log = pino({ level: 'silent' })
  const secret = 'known to the tests'
  await migrate(config.databaseFile)
  const ports: { -readonly [K in keyof Ports]: number } = { office: 0, door: 0, standIn: 0, dns: 0, smtp: 0 }
  const standIns = config.standIns
    ? await openStandIns({ dns: config.dnsStandInPort, smtp: config.smtpStandInPort }, config.bind, () => '')
    : null
  const doors = await Promise.all(
    Array.from({ length: config.doors }, () =>
      openDoor({
        config,
        log,
        secret,
        ports: () => ports,
        tell: (news) => {
          office.hear(news)
        },
      }),
    ),
  )
  const office = await openOffice({
    config,
    log,
    secret,
    webDirectory,
    ports: () => ports,
    doors: {
      forget: async (what) => {
        await Promise.all(doors.map((door) => door.forget(what)))
      },
    },
    standIns: standIns && standInsBy((question) => Promise.resolve(standIns.answer(question))),
  })
  const doorPorts: number[] = []
  for (const door of doors) doorPorts.push(await listen(door.server, config.doorPort, config.bind))
  ports.door = doorPorts[0] ?? 0
  ports.office = await listen(office.server, config.officePort, config.bind)
  if (standIns) {
    ports.standIn = await listen(standIns.server, config.standInPort, config.bind)
    ports.dns = standIns.dnsPort
    ports.smtp = standIns.smtpPort
  }
  return {
    ports,
    /** Each front door has a port of its own here. */
    doorPorts,
    async close() {
      await Promise.all([
        ...doors.map((door) => door.close()),
        office.close(),
        ...(standIns ? [closeServer(standIns.server, { atOnce: true })] : []),
      ])
      await standIns?.close()
    },
  }
}
