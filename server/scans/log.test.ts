import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import Sqlite from 'better-sqlite3'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { prepareWriter } from '../sqlite/index.ts'
import { logKeeper } from './log.ts'

let directory: string
let file: string
let database: Sqlite.Database
beforeEach(() => {
  directory = mkdtempSync(join(tmpdir(), 'flimbo-log-'))
  file = join(directory, 'flimbo.sqlite')
  database = new Sqlite(file)
  prepareWriter(database)
  database.exec('CREATE TABLE t (id INTEGER PRIMARY KEY, text TEXT)')
})
afterEach(() => {
  database.close()
  rmSync(directory, { recursive: true, force: true })
})

const logBytes = () => statSync(`${file}-wal`).size
const pause = (ms: number) =>
  new Promise((resolve) => {
    setTimeout(resolve, ms)
  })

/** Somebody who writes without a pause, on a thread of their own. @returns ends it, and tells how often they wrote */
function busyWriter(): () => Promise<number> {
  const writer = new Worker(
    `const { workerData, parentPort } = require('node:worker_threads')
    const database = new (require('better-sqlite3'))(workerData)
    database.pragma('synchronous = OFF')
    database.pragma('wal_autocheckpoint = 0')
    const put = database.prepare("INSERT OR REPLACE INTO t VALUES (?, ?)")
    let n = 0
    let going = true
    parentPort.once('message', () => { going = false })
    const work = () => {
      for (let i = 0; i < 20; i++) put.run(n++ % 50, 'x'.repeat(4000))
      if (going) setImmediate(work); else { database.close(); parentPort.postMessage(n); parentPort.close() }
    }
    work()`,
    { eval: true, workerData: file },
  )
  return () =>
    new Promise((resolve) => {
      writer.once('message', resolve)
      writer.postMessage('end')
    })
}

describe('the write-ahead log', () => {
  it('begins anew although somebody writes without a pause', async () => {
    const keeper = logKeeper(database, 500)
    const end = busyWriter()
    for (let i = 0; i < 60; i++) {
      await pause(25)
      keeper.copy()
    }
    const written = await end()
    expect(written).toBeGreaterThan(2000)
    // Each of them wrote a page or more of 4 kB.
    expect(logBytes()).toBeLessThan((written * 4096) / 2)
  })

  it('keeps nobody from writing while somebody reads, and goes on when they have read', () => {
    const keeper = logKeeper(database, 10)
    const reader = new Sqlite(file, { readonly: true })
    reader.exec('BEGIN')
    reader.prepare('SELECT count(*) FROM t').get()
    const put = database.prepare('INSERT INTO t (text) VALUES (?)')
    for (let i = 0; i < 100; i++) put.run('x'.repeat(4000))
    keeper.copy()
    put.run('one more')
    expect(keeper.cut()).toBe(false)
    reader.exec('COMMIT')
    expect(keeper.cut()).toBe(true)
    expect(logBytes()).toBe(0)
    reader.close()
  })

  it('holds nothing that was deleted once it is cut', () => {
    database.exec("INSERT INTO t (text) VALUES ('the salt of the day')")
    database.exec('DELETE FROM t')
    expect(logKeeper(database).cut()).toBe(true)
    for (const each of [file, `${file}-wal`])
      expect(readFileSync(each).includes('the salt of the day')).toBe(false)
  })
})
