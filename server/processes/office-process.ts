import { fileURLToPath } from 'node:url'
import { standInsBy } from '../standins/index.ts'
import { runChild } from './child.ts'
import { listen } from './listening.ts'
import { openOffice } from './openOffice.ts'
import { createPendingAnswers } from './pendingAnswers.ts'
import { lowerPriority } from './lowerPriority.ts'

/** From `server/dist` and from `server/processes` alike. */
const webDirectory = fileURLToPath(new URL('../../web/dist', import.meta.url))

runChild('office', async ({ config, log, secret, ports, tell }) => {
  lowerPriority()
  const forgets = createPendingAnswers()
  const questions = createPendingAnswers()
  const office = await openOffice({
    config,
    log,
    secret,
    webDirectory,
    ports,
    doors: {
      forget: async (what) => {
        await forgets.ask((id) => {
          tell({ kind: 'forget', id, what })
        })
      },
    },
    standIns: config.standIns
      ? standInsBy((question) =>
          questions.ask((id) => {
            tell({ kind: 'question', id, question })
          }),
        )
      : null,
  })
  const port = await listen(office.server, ports().office || config.officePort, config.bind)
  return {
    ports: { office: port },
    hear(message) {
      if (message.kind === 'news') office.hear(message.news)
      else if (message.kind === 'forgotten') forgets.answer(message.id, undefined)
      else if (message.kind === 'answer') questions.answer(message.id, message.value)
      else if (message.kind === 'no-answer') questions.refuse(message.id)
    },
    close: () => office.close(),
  }
})
