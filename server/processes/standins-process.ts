import { setPriority } from 'node:os'
import { openStandIns } from '../standins/index.ts'
import { runChild } from './child.ts'
import { listen, loopback, shut } from './listening.ts'

const NICE = 10

runChild('standIns', async ({ config, tell }) => {
  try {
    setPriority(NICE)
  } catch {
    // Not everywhere may a process step back; it works as well without.
  }
  const standIns = await openStandIns(config.dnsStandInPort, loopback(config.bind))
  const standIn = await listen(standIns.server, config.standInPort, config.bind)
  return {
    ports: { standIn, dns: standIns.dnsPort },
    hear(message) {
      if (message.kind === 'question') tell({ kind: 'answer', id: message.id, value: standIns.answer(message.question) })
    },
    async close() {
      await shut(standIns.server, { atOnce: true })
      await standIns.close()
    },
  }
})
