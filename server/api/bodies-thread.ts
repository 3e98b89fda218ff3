import { endpointOf } from '@flimbo/core/contracts'
import { serveCalls } from '../threads/index.ts'
import type { BodyCalls } from './bodies.ts'
import { readJson } from './read.ts'

const calls: BodyCalls = {
  read: (method, path, bytes) => readJson(bytes, endpointOf(method, path)?.body),
}
serveCalls(calls)
