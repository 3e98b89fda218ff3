import {
  planApi,
  planView,
  preferences as preferencesContract,
  type PlanView,
  type Preferences,
} from '@flimbo/core/plan'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { keepNamed, tables, type ViewRow } from '../database/index.ts'
import { exportEndpoints, type ExportParts } from './exports.ts'
import { planImports, type ImportParts } from './imports.ts'

const NO_PREFERENCES: Preferences = { planColumns: null, planWidths: {} }
const VIEWS_MAX = 200

/** The endpoints of plan, as `core`’s contract describes them. */
export function planEndpoints(mounts: Mounts, parts: ImportParts & ExportParts): void {
  const { database } = parts
  const imports = planImports(parts)
  exportEndpoints(mounts, parts)

  mount(mounts, planApi.read, async ({ query: { name }, who, bytes, campaign }) => {
    if (bytes.length === 0)
      throw wrongField('file', 'The file is empty. Upload a CSV file or an XLSX workbook.')
    return imports.begin(who, campaign, name, bytes)
  })
  mount(mounts, planApi.adjust, ({ params, body }) => imports.adjust(params.id, body))
  mount(mounts, planApi.get, ({ params }) => imports.get(params.id))
  mount(mounts, planApi.lines, ({ params, query: { verdict, page, pageSize } }) =>
    imports.lines(params.id, verdict, page, pageSize),
  )
  mount(mounts, planApi.run, ({ params, body }) => imports.run(params.id, body.lines === 'good'))
  mount(mounts, planApi.cancel, ({ params }) => imports.cancel(params.id))

  /** A view as it was stored; one from a time of other columns is read as far as it is understood. */
  function viewOf(row: ViewRow): PlanView[] {
    const read = planView.safeParse(row)
    return read.success ? [read.data] : []
  }
  mount(mounts, planApi.views, async ({ who }) => ({
    rows: (
      await database.read.find(tables.views, {
        where: { workspaceId: who.workspace.id },
        order: { name: 'asc' },
      })
    ).flatMap(viewOf),
  }))
  mount(mounts, planApi.saveView, async ({ body: { name, value }, who }) =>
    database.write(async (manager) => {
      const row = { workspaceId: who.workspace.id, name, value }
      const id = await keepNamed(manager, tables.views, row, VIEWS_MAX)
      if (id === null) throw wrongField('name', 'There are 200 views already. Delete one first.')
      return { id, name, value }
    }),
  )
  mount(mounts, planApi.dropView, async ({ params: { id } }) => {
    await database.write((manager) => manager.delete(tables.views, { id }))
  })

  async function preferencesOf(personId: number): Promise<Preferences> {
    const rows = await database.read.findBy(tables.preferences, { personId })
    const read = preferencesContract.safeParse({
      ...NO_PREFERENCES,
      ...Object.fromEntries(rows.map(({ name, value }) => [name, value])),
    })
    return read.success ? read.data : NO_PREFERENCES
  }
  mount(mounts, planApi.preferences, ({ who }) => preferencesOf(who.person.id))
  mount(mounts, planApi.changePreferences, async ({ body, who }) => {
    const personId = who.person.id
    await database.writeAside(async (manager) => {
      for (const [name, value] of Object.entries(body)) {
        // Nothing chosen is no choice to remember.
        if (value === null) await manager.delete(tables.preferences, { personId, name })
        else
          await manager.upsert(tables.preferences, { personId, name, value: value as never }, [
            'personId',
            'name',
          ])
      }
    })
    return preferencesOf(personId)
  })
}
