import { openStandIns } from '../standins/index.ts'
import { runChild } from './child.ts'
import { listen, loopback, shut } from './listening.ts'
import { stepBack } from './stepBack.ts'

runChild('standIns', async ({ config, tell }) => {
  stepBack()
  const standIns = await openStandIns(config.dnsStandInPort, loopback(config.bind))
  const standIn = await listen(standIns.server, config.standInPort, config.bind)
  return {
    ports: { standIn, dns: standIns.dnsPort },
    hear(message) {
      if (message.kind === 'question')
        tell({ kind: 'answer', id: message.id, value: standIns.answer(message.question) })
    },
    async close() {
      await shut(standIns.server, { atOnce: true })
      await standIns.close()
    },
  }
})
