import { serveCalls } from '../threads/index.ts'
import type { CityCalls } from './cities.ts'
import { writeCities } from './cityList.ts'

const calls: CityCalls = { write: writeCities }
serveCalls(calls)
