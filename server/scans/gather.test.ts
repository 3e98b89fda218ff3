import Sqlite from 'better-sqlite3'
import { describe, expect, it } from 'vitest'
import { DoorBusy } from './errors.ts'
import { eventInserter, type PageEventRow } from './eventRows.ts'
import { gather } from './gather.ts'

const event = (more: Partial<PageEventRow> = {}): PageEventRow => ({
  at: 1000,
  codeId: 1,
  scanId: 1,
  routeId: 1,
  revisionId: 1,
  pageId: 1,
  kind: 'link',
  part: 'a',
  item: 'l',
  apart: '',
  ...more,
})

/** A disk that is as slow as a test wants it. */
function disk() {
  const groups: PageEventRow[][] = []
  const waiting: { resolve: () => void; reject: (error: Error) => void }[] = []
  const notes = gather((events: PageEventRow[]) => {
    groups.push(events)
    return new Promise<number[]>((resolve, reject) => {
      waiting.push({
        resolve: () => {
          resolve(events.map(({ scanId }) => scanId))
        },
        reject,
      })
    })
  }, 20_000)
  const tick = () => new Promise((resolve) => setTimeout(resolve, 0))
  return {
    notes,
    sizes: () => groups.map(({ length }) => length),
    done: async () => {
      waiting.shift()?.resolve()
      await tick()
    },
    fail: async () => {
      waiting.shift()?.reject(new Error('The disk is full'))
      await tick()
    },
    tick,
  }
}

describe('what happened on pages', () => {
  it('gathers while a group is being stored, and is told of when it is on disk', async () => {
    const { notes, sizes, done, tick } = disk()
    let stored = 0
    const count = () => {
      stored++
    }
    void notes.add([event()]).then(count)
    await tick()
    void notes.add([event(), event()]).then(count)
    void notes.add([event()]).then(count)
    await tick()
    expect([sizes(), stored]).toEqual([[1], 0])
    await done()
    expect([sizes(), stored]).toEqual([[1, 3], 1])
    await done()
    expect(stored).toBe(3)
  })

  it('is told each what became of its own', async () => {
    const { notes, done, tick } = disk()
    void notes.add([event()])
    await tick()
    const [some, others] = [
      notes.add([event({ scanId: 7 }), event({ scanId: 8 })]),
      notes.add([event({ scanId: 9 })]),
    ]
    await done()
    await done()
    expect([await some, await others]).toEqual([[7, 8], [9]])
  })

  it('that could not be stored is told of to those alone who told it, and what comes after is tried', async () => {
    const { notes, sizes, done, fail, tick } = disk()
    const first = notes.add([event()])
    const told = first.catch((error: unknown) => String(error))
    await tick()
    const second = notes.add([event()])
    await fail()
    expect(await told).toContain('The disk is full')
    await done()
    await second
    expect(sizes()).toEqual([1, 1])
  })

  it('is turned away where too much waits: scans come first', async () => {
    const { notes, tick } = disk()
    void notes.add([event()])
    await tick()
    void notes.add(Array.from({ length: 20_000 }, () => event()))
    await expect(notes.add([event()])).rejects.toThrow(DoorBusy)
  })

  it('is waited for at the end', async () => {
    const { notes, done, tick } = disk()
    void notes.add([event()])
    await tick()
    void notes.add([event()])
    let isEmpty = false
    const emptied = notes.empty().then(() => {
      isEmpty = true
    })
    await done()
    expect(isEmpty).toBe(false)
    await done()
    await emptied
    expect(isEmpty).toBe(true)
  })
})

describe('rows of what happened', () => {
  function table() {
    const database = new Sqlite(':memory:')
    database.exec(`CREATE TABLE event_ways (id INTEGER PRIMARY KEY, routeId, revisionId, pageId, kind, part, item, apart,
      UNIQUE (pageId, routeId, revisionId, kind, part, item, apart));
      CREATE TABLE event_rows (id INTEGER PRIMARY KEY AUTOINCREMENT, at, codeId, scanId, wayId);
      CREATE UNIQUE INDEX events_once ON event_rows (scanId, wayId)`)
    const count = (name: string) => database.prepare(`SELECT count(*) FROM ${name}`).pluck().get() as number
    return { insert: eventInserter(database), database, count }
  }

  it('are there once for each scan, and what they have in common once for all', () => {
    const { insert, count } = table()
    insert([event(), event({ at: 2000 }), event({ scanId: 2 }), event({ scanId: 2, item: 'm' })])
    insert([event({ at: 3000 })])
    expect([count('event_rows'), count('event_ways')]).toEqual([3, 2])
  })

  it('of a group that fails are not there, and the next is stored as if it had never been', () => {
    const { insert, database, count } = table()
    database.exec(
      `CREATE TRIGGER full BEFORE INSERT ON event_rows WHEN NEW.scanId = 9 BEGIN SELECT raise(ABORT, 'full'); END`,
    )
    expect(() => {
      insert([event(), event({ scanId: 9 })])
    }).toThrow('full')
    expect([count('event_rows'), count('event_ways')]).toEqual([0, 0])
    insert([event()])
    expect([count('event_rows'), count('event_ways')]).toEqual([1, 1])
  })
})
