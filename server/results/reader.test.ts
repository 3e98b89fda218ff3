import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { EventEmitter } from 'node:events'
import type { Response } from 'express'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { whileAsked } from '../api/index.ts'
import { openDatabase, type Database } from '../database/index.ts'
import { startReader, WAITING_MAX, type Reader } from './reader.ts'

let directory: string
let database: Database
let reader: Reader
beforeEach(async () => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-reader-'))
  database = await openDatabase(join(directory, 'flimbo.sqlite'))
  reader = startReader(database.file)
})
afterEach(async () => {
  await reader.close()
  await database.close()
  rmSync(directory, { recursive: true, force: true })
})

/** Counts to a number in SQL: a question that takes its time. */
const counted = (to: number) =>
  reader.ask(
    'numbers',
    'WITH RECURSIVE n(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM n WHERE x < ?) SELECT max(x) FROM n',
    [to],
  )
const answer = () => new EventEmitter() as unknown as Response

describe('questions to the reading thread', () => {
  it('that are equal are asked once while they wait, and everybody is answered', async () => {
    const any = () => reader.ask('numbers', 'SELECT random()', [])
    const answers = await Promise.all(Array.from({ length: 50 }, any))
    // The first goes ahead at once; the others wait for a second one, all together.
    expect(new Set(answers.flat()).size).toBe(2)
    expect(await any()).not.toEqual(answers.at(-1))
  })

  it('that nobody waits for any more are not asked', async () => {
    const busy = counted(3_000_000)
    const gone = answer()
    const left = whileAsked(gone, () => counted(200_000_000))
    const stays = whileAsked(answer(), () => counted(10))
    gone.emit('close')
    await expect(left).rejects.toThrow()
    expect(await stays).toEqual([10])
    await busy
  }, 20_000)

  it('are asked on while somebody else still waits for the same', async () => {
    const busy = counted(3_000_000)
    const gone = answer()
    const left = whileAsked(gone, () => counted(11))
    const stays = whileAsked(answer(), () => counted(11))
    gone.emit('close')
    await expect(left).rejects.toThrow()
    expect(await stays).toEqual([11])
    await busy
  })

  it('are asked although who asked the same before leaves, having the answer', async () => {
    const first = answer()
    const early = whileAsked(first, () => counted(12))
    const busy = counted(3_000_000)
    const late = whileAsked(answer(), () => counted(12))
    expect(await early).toEqual([12])
    first.emit('close')
    expect(await late).toEqual([12])
    await busy
  })

  it('are no more than can be held; the rest are told to come again', async () => {
    const busy = counted(1_000_000)
    const all = await Promise.allSettled(Array.from({ length: WAITING_MAX + 5 }, (_, i) => counted(i + 1)))
    expect(all.filter(({ status }) => status === 'rejected')).toHaveLength(5)
    await busy
  })
})
