import { setTimeout } from 'node:timers/promises'
import { workerData } from 'node:worker_threads'
import { serveCalls, type Calls } from '../threads/index.ts'

/** A thread for the tests of how threads are called. */
export interface EchoCalls extends Calls {
  greet(name: string): string
  later(ms: number, text: string): Promise<string>
  fail(name: string, message: string): never
  failLater(message: string): Promise<never>
  spin(): never
  count(to: number): number
  random(): number
  exit(): never
}

const { greeting } = workerData as { greeting?: string }

const calls: EchoCalls = {
  greet: (name) => `${String(greeting)}, ${name}`,
  later: (ms, text) => setTimeout(ms, text),
  fail(name, message) {
    throw Object.assign(new Error(message), { name })
  },
  failLater: (message) => Promise.reject(new Error(message)),
  count(to) {
    let n = 0
    while (n < to) n++
    return n
  },
  random: () => Math.random(),
  spin() {
    for (;;);
  },
  exit: () => process.exit(3),
}
serveCalls(calls)
