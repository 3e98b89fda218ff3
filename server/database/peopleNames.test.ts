import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { runningFlimbo, type Running } from '../tests/running.ts'
import { openDatabase, peopleNames, type Database } from './index.ts'

let flimbo: Running
let database: Database
beforeAll(async () => {
  flimbo = await runningFlimbo()
  await flimbo.setUp()
  database = await openDatabase(flimbo.file)
})
afterAll(async () => {
  await database.close()
  await flimbo.close()
})

describe('what people are called', () => {
  it('is their name, asked for once however many of their things there are, and said of who is gone', async () => {
    const nameOf = await peopleNames(database.read, [1, 1, 999])
    expect([nameOf(1), nameOf(999)]).toEqual(['Anna Petersen', 'someone who left'])
  })
  it('is asked of nobody where there is nobody to ask of', async () => {
    expect((await peopleNames(database.read, []))(1)).toBe('someone who left')
  })
})
