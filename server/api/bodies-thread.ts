import { parentPort } from 'node:worker_threads'
import { endpointOf } from '@flimbo/core/contracts'
import type { BodyOrder } from './bodies.ts'
import { readJson } from './read.ts'

parentPort?.on('message', ({ method, path, bytes }: BodyOrder) => {
  parentPort?.postMessage(readJson(bytes, endpointOf(method, path)?.body))
})
