import { siteAddresses, siteKeys } from '../goals/index.ts'
import { addressesOf } from '../line/index.ts'
import { keyFor } from '../signing/index.ts'
import { openStandIns } from '../standins/index.ts'
import { runChild } from './child.ts'
import { listen, loopback, closeServer } from './listening.ts'
import { lowerPriority } from './lowerPriority.ts'
import { storedSecret } from './storedSecret.ts'

/** The workspace that the stand-in site reports to: the first, which is that of the sample scenario. */
const SAMPLE_WORKSPACE = 1

runChild('standIns', async ({ config, ports, tell }) => {
  lowerPriority()
  const key = siteKeys(keyFor('site', storedSecret(config.dataDir))).keyOf(SAMPLE_WORKSPACE)
  const addresses = addressesOf(config, ports)
  const standIns = await openStandIns(
    { dns: ports().dns || config.dnsStandInPort, smtp: ports().smtp || config.smtpStandInPort },
    loopback(config.bind),
    () => siteAddresses(addresses.door, key).script,
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
