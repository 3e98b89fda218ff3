import { openStandIns } from '../standins/index.ts'
import { runChild } from './child.ts'
import { listen, loopback, closeServer } from './listening.ts'
import { lowerPriority } from './lowerPriority.ts'

runChild('standIns', async ({ config, ports, tell }) => {
  lowerPriority()
  const standIns = await openStandIns(
    { dns: ports().dns || config.dnsStandInPort, smtp: ports().smtp || config.smtpStandInPort },
    loopback(config.bind),
  )
  const standIn = await listen(standIns.server, ports().standIn || config.standInPort, config.bind)
  return {
    ports: { standIn, dns: standIns.dnsPort, smtp: standIns.smtpPort },
    hear(message) {
      if (message.kind === 'question')
        tell({ kind: 'answer', id: message.id, value: standIns.answer(message.question) })
    },
    async close() {
      await closeServer(standIns.server, { atOnce: true })
      await standIns.close()
    },
  }
})
