import { resultsApi, savedQuestion, type SavedQuestion } from '@flimbo/core/results'
import { In } from 'typeorm'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import { insertedId, keepNamed, tables, type Database, type QuestionRow } from '../database/index.ts'

const QUESTIONS_MAX = 500
const NOTES_MAX = 5000

/** The endpoints of what is kept beside the figures: questions that were saved, and notes on days. */
export function keptEndpoints(mounts: Mounts, database: Database): void {
  /** A question as it was stored; one from a time of other dimensions is left out. */
  function savedOf({ id, name, value }: QuestionRow, by: string): SavedQuestion[] {
    const read = savedQuestion.safeParse({ id, name, value, by })
    return read.success ? [read.data] : []
  }

  mount(mounts, resultsApi.saved, async ({ who }) => {
    const rows = await database.read.find(tables.questions, {
      where: { workspaceId: who.workspace.id },
      order: { name: 'ASC' },
    })
    const people = await database.read.findBy(tables.people, { id: In(rows.map(({ personId }) => personId)) })
    const nameOf = new Map(people.map(({ id, name }) => [id, name]))
    return { rows: rows.flatMap((row) => savedOf(row, nameOf.get(row.personId) ?? '')) }
  })

  mount(mounts, resultsApi.save, ({ body: { name, value }, who }) =>
    database.write(async (manager) => {
      const { workspace, person } = who
      const row = { workspaceId: workspace.id, name, value, personId: person.id, at: Date.now() }
      const id = await keepNamed(manager, tables.questions, row, QUESTIONS_MAX)
      if (id === null) throw wrongField('name', 'There are 500 saved questions already. Delete one first.')
      return { id, name, value, by: person.name }
    }),
  )
  mount(mounts, resultsApi.forget, async ({ params: { id } }) => {
    await database.write((manager) => manager.delete(tables.questions, { id }))
  })

  mount(mounts, resultsApi.note, ({ body, who }) =>
    database.write(async (manager) => {
      const workspaceId = who.workspace.id
      if ((await manager.countBy(tables.dayNotes, { workspaceId })) >= NOTES_MAX)
        throw wrongField('text', 'There are 5,000 notes already. Delete some first.')
      const row = { workspaceId, ...body, personId: who.person.id, at: Date.now() }
      return { id: insertedId(await manager.insert(tables.dayNotes, row)) }
    }),
  )
  mount(mounts, resultsApi.removeNote, async ({ params: { id } }) => {
    await database.write((manager) => manager.delete(tables.dayNotes, { id }))
  })
}
