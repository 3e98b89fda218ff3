import { Refusal } from '../api/index.ts'

interface Waiting {
  readonly resolve: (value: unknown) => void
  readonly reject: (error: Error) => void
}

/** Things asked over the line, by their numbers, until they are answered. */
export function createPendingAnswers() {
  const waiting = new Map<number, Waiting>()
  let last = 0
  const settle = (id: number, how: (one: Waiting) => void) => {
    const one = waiting.get(id)
    waiting.delete(id)
    if (one) how(one)
  }
  return {
    ask(send: (id: number) => void): Promise<unknown> {
      const id = ++last
      return new Promise((resolve, reject) => {
        waiting.set(id, { resolve, reject })
        send(id)
      })
    },
    answer(id: number, value: unknown): void {
      settle(id, ({ resolve }) => {
        resolve(value)
      })
    },
    refuse(id: number): void {
      settle(id, ({ reject }) => {
        reject(
          new Refusal(
            'unavailable',
            'The stand-ins do not answer just now; they are being started anew. Try again in a moment.',
          ),
        )
      })
    },
  }
}
