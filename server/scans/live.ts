import type { LiveEvent } from '@flimbo/core/scans'

/** An open stream: takes what is told as it goes over the wire, and ends when it is told to. */
export interface Stream {
  readonly workspaceId: number
  /** Whose session it belongs to: it ends with it. */
  readonly session: string
  send(text: string): void
  end(): void
}

/** What happens, told to every open office screen of the workspace it happens in. */
export interface LiveHub {
  tell(workspaceId: number, event: LiveEvent): void
  /** Goes up with each change in a workspace; scans leave it as it is. What was worked out under another edition is stale. */
  edition(workspaceId: number): number
  /** @returns a function that forgets the stream */
  open(stream: Stream): () => void
  /** Ends the streams of a session that has ended. */
  endSession(session: string): void
  /** Ends all streams: the server stops. */
  close(): void
}

/** Carries what changed to the screens that listen, one list of listeners a workspace. */
export function liveHub(): LiveHub {
  const streams = new Set<Stream>()
  const editions = new Map<number, number>()
  return {
    edition: (workspaceId) => editions.get(workspaceId) ?? 0,
    tell(workspaceId, event) {
      if (event.type === 'change') editions.set(workspaceId, (editions.get(workspaceId) ?? 0) + 1)
      const text = `data: ${JSON.stringify(event)}\n\n`
      for (const stream of streams) if (stream.workspaceId === workspaceId) stream.send(text)
    },
    open(stream) {
      streams.add(stream)
      return () => {
        streams.delete(stream)
      }
    },
    endSession(session) {
      for (const stream of streams) if (stream.session === session) stream.end()
    },
    close() {
      for (const stream of streams) stream.end()
    },
  }
}
