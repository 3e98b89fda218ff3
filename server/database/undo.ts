import type { EntityManager } from 'typeorm'

/** What a large write may change. */
const TABLES = [
  'campaigns',
  'routes',
  'codes',
  'short_links',
  'revisions',
  'limits',
  'lane_sets',
  'pages',
] as const
/** Stands last in the log once a large write is whole: from then on nothing is taken back. */
const WHOLE = '-- whole'

interface Column {
  name: string
  pk: number
}
interface Entry {
  id: number
  statement: string
}

const named = (column: { name: string }) => `"${column.name}"`
const quoted = (side: 'OLD' | 'NEW') => (column: { name: string }) => `quote(${side}.${named(column)})`

/** SQL of an expression that joins texts and the values of columns. */
function joined(parts: readonly string[], between: string): string {
  return parts.join(` || '${between}' || `)
}

async function triggersOf(manager: EntityManager, table: string): Promise<string[]> {
  const columns = await manager.query<Column[]>(`PRAGMA table_info(${table})`)
  const keys = columns.filter(({ pk }) => pk > 0)
  const key = (side: 'OLD' | 'NEW') =>
    `' WHERE ' || ${joined(
      keys.map((each) => `'${named(each)} = ' || ${quoted(side)(each)}`),
      ' AND ',
    )}`
  const set = joined(
    columns.map((each) => `'${named(each)} = ' || ${quoted('OLD')(each)}`),
    ', ',
  )
  const values = joined(columns.map(quoted('OLD')), ', ')
  const statements = [
    ['insert', 'AFTER INSERT', `'DELETE FROM ${table}' || ${key('NEW')}`],
    ['update', 'AFTER UPDATE', `'UPDATE ${table} SET ' || ${set} || ${key('NEW')}`],
    [
      'delete',
      'AFTER DELETE',
      `'INSERT INTO ${table} (${columns.map(named).join(', ')}) VALUES (' || ${values} || ')'`,
    ],
  ]
  return statements.map(
    ([name = '', when = '', statement = '']) =>
      `CREATE TEMP TRIGGER undo_${table}_${name} ${when} ON main.${table} BEGIN INSERT INTO undo_log (statement) VALUES (${statement}); END`,
  )
}

/**
 * Notes, for every row that this connection changes, the statement that takes the change back, in the same
 * transaction (the technique of SQLite's documentation, "Automatic Undo/Redo With SQLite"): whatever stops a large
 * write between two of its turns, all of it can be taken back.
 */
export async function startNoting(manager: EntityManager): Promise<void> {
  for (const table of TABLES)
    for (const trigger of await triggersOf(manager, table)) await manager.query(trigger)
}

/** Ends the noting of changes, so that they are not taken back any more. */
export async function stopNoting(manager: EntityManager): Promise<void> {
  for (const table of TABLES)
    for (const name of ['insert', 'update', 'delete'])
      await manager.query(`DROP TRIGGER IF EXISTS temp.undo_${table}_${name}`)
}

/** Says that everything is there; to be committed with the last change. */
export async function markComplete(manager: EntityManager): Promise<void> {
  await manager.query('INSERT INTO undo_log (statement) VALUES (?)', [WHOLE])
}

export type LeftOver = 'nothing' | 'whole' | 'half'

/** What is to be done with the log: nothing, clear it, or take back what it notes. */
export async function findUnfinished(manager: EntityManager): Promise<LeftOver> {
  const [last] = await manager.query<Entry[]>('SELECT id, statement FROM undo_log ORDER BY id DESC LIMIT 1')
  if (!last) return 'nothing'
  return last.statement === WHOLE ? 'whole' : 'half'
}

/** Clears so many entries of the log of a write that is whole, the oldest first. @returns whether there is more */
export async function clearEntries(manager: EntityManager, entries: number): Promise<boolean> {
  await manager.query('DELETE FROM undo_log WHERE id IN (SELECT id FROM undo_log ORDER BY id LIMIT ?)', [
    entries,
  ])
  return (await findUnfinished(manager)) !== 'nothing'
}

/** Takes so many changes back, the newest first. @returns whether there is more */
export async function undoEntries(manager: EntityManager, entries: number): Promise<boolean> {
  const newest = await manager.query<Entry[]>('SELECT id, statement FROM undo_log ORDER BY id DESC LIMIT ?', [
    entries,
  ])
  for (const { statement } of newest) await manager.query(statement)
  await manager.query('DELETE FROM undo_log WHERE id >= ?', [newest.at(-1)?.id ?? 0])
  return newest.length === entries
}
