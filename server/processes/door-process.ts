import { runChild } from './child.ts'
import { listen, listenOn, openPortOf } from './listening.ts'
import { openDoor } from './openDoor.ts'

runChild('door', async ({ config, log, secret, port, ports, tell }) => {
  const door = await openDoor({
    config,
    log,
    secret,
    ports,
    tell: (news) => {
      tell({ kind: 'news', news })
    },
  })
  const number = port
    ? await listenOn(door.server, port)
    : await listen(door.server, config.doorPort, config.bind)
  return {
    ports: { door: number },
    keep: port ? undefined : openPortOf(door.server),
    hear(message) {
      if (message.kind !== 'forget') return
      const { id, what } = message
      // One that cannot forget does not say that it did, and is replaced.
      door.forget(what).then(
        () => {
          tell({ kind: 'forgot', id })
        },
        (error: unknown) => {
          log.error({ error }, 'front door: could not forget what changed')
        },
      )
    },
    close: () => door.close(),
  }
})
