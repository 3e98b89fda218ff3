import { In, type EntityManager } from 'typeorm'
import { isFile } from '@flimbo/core/forms'
import { leadsApi, type Lead } from '@flimbo/core/leads'
import { attach, missing, mount, wrongField, writeTo, type Mounts } from '../api/index.ts'
import { findAmong, tables, type Database, type LeadRow } from '../database/index.ts'
import type { Config } from '../config/index.ts'
import type { Exporter, Jobs, JobViewer } from '../jobs/index.ts'
import { mailLists, queueMail } from '../mail/index.ts'
import type { Reader } from '../reader/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { readSetting } from '../workspace/index.ts'
import { answerFiles } from './answerFiles.ts'
import { eraseLeads } from './erase.ts'
import { answersIn, shownForms, titleIn } from './formOf.ts'
import { addToFormCount } from './formCounts.ts'
import { mailsFor, mailsOf } from './mailsOf.ts'
import { LEAD_FILES, leadFileEndpoints } from './fileEndpoints.ts'
import { leadQueryOf } from './leadQuery.ts'
import { leadNumberEndpoints } from './numberEndpoints.ts'
import { LEAD_STATES, leadStateEndpoints } from './stateEndpoints.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  /** Another reading thread, for what takes long. */
  readonly reviewer: Reader
  readonly live: LiveHub
  readonly config: Pick<Config, 'dataDir'>
  readonly exporter: Exporter
  readonly jobs: Pick<Jobs, 'dropFiles'>
  readonly jobView: JobViewer
}

const OTHERS_MAX = 50
/** Of one person: nobody answers so often. */
const PERSON_MAX = 10_000

/** The endpoints of leads, as `core`’s contract describes them. */
export function leadsEndpoints(
  mounts: Mounts,
  { database, reader, reviewer, live, config, exporter, jobs, jobView }: Parts,
): void {
  const { read } = database
  const files = answerFiles(config.dataDir)
  const formOf = shownForms(read)
  const mails = mailLists(read)

  async function rowOf(id: number): Promise<LeadRow> {
    const row = await read.findOneBy(tables.leads, { id })
    if (!row) throw missing('lead')
    return row
  }

  async function whole(id: number): Promise<Lead> {
    const row = await rowOf(id)
    const [campaign, code, route, page, form, notes, others, mailed] = await Promise.all([
      read.findOneBy(tables.campaigns, { id: row.campaignId }),
      read.findOneBy(tables.codes, { id: row.codeId }),
      read.findOneBy(tables.routes, { id: row.routeId }),
      read.findOneBy(tables.pages, { id: row.pageId }),
      formOf(row.pageRevisionId, row.part),
      read.find(tables.leadNotes, { where: { leadId: id }, order: { id: 'ASC' } }),
      reader.ask('leadsOfPerson', id, OTHERS_MAX),
      mails.ofLead(id),
    ])
    const people = await findAmong(read, tables.people, 'id', [
      ...new Set(notes.map(({ personId }) => personId)),
    ])
    const nameOf = new Map(people.map((person) => [person.id, person.name]))
    const titleOf = titleIn(form)
    const titles = new Map(form.questions.map((question) => [question.id, titleOf(question)]))
    const { id: _id, sendKey: _key, visitor: _visitor, search: _search, ...told } = row
    return {
      ...told,
      id,
      held: row.held === '' ? null : row.held,
      campaignName: campaign?.name ?? '',
      codeName: code?.name ?? '',
      routeName: route?.name ?? '',
      pageName: page?.name ?? '',
      answers: answersIn(row, form),
      consents: row.consents.map(({ question, ...consent }) => ({
        ...consent,
        title: titles.get(question) ?? '',
      })),
      notes: notes.map(({ personId, leadId: _lead, ...note }) => ({
        ...note,
        by: nameOf.get(personId) ?? '',
      })),
      mails: mailed.map(({ kind, state, at, settledAt, reply }) => ({ kind, state, at, settledAt, reply })),
      others,
    }
  }

  /** Mails whoever gave an answer that was held at first, as if it had come now. */
  async function mailFreed(manager: EntityManager, lead: LeadRow): Promise<void> {
    const { id, workspaceId, campaignId, pageRevisionId, part, email } = lead
    const { settings } = await formOf(pageRevisionId, part)
    if (!settings || email === '') return
    const at = Date.now()
    const of = mailsOf(settings, at)
    if (of.confirmBy !== null) await manager.update(tables.leads, { id }, { confirmBy: of.confirmBy })
    for (const mail of mailsFor(of))
      await queueMail(manager, { ...mail, workspaceId, campaignId, leadId: id, at })
  }

  const tell = (workspaceId: number, campaignIds: Iterable<number>) => {
    for (const campaignId of new Set(campaignIds)) live.tell(workspaceId, { type: 'leads', campaignId })
  }

  mount(
    mounts,
    leadsApi.list,
    async ({ query: { page, pageSize, order, sort: _at, ...filter }, who, campaign }) => {
      const query = leadQueryOf(who.workspace.id, campaign?.zone ?? who.workspace.zone, filter)
      const found = await reader.ask('leadsPage', query, order, pageSize, page * pageSize)
      return { ...found, page, pageSize }
    },
  )

  mount(mounts, leadsApi.get, ({ params: { id } }) => whole(id))

  mount(mounts, leadsApi.change, async ({ body: { ids, set }, who }) => {
    const { isHeld, ...values } = set
    if (values.state !== undefined) {
      const { states } = (await readSetting(read, who.workspace.id, LEAD_STATES)).value
      if (!states.some(({ key }) => key === values.state))
        throw wrongField('set.state', 'This state is not in the list any more. Choose another.')
    }
    if (values.assignedTo !== undefined && values.assignedTo !== null) {
      const person = await read.findOneBy(tables.people, {
        id: values.assignedTo,
        workspaceId: who.workspace.id,
      })
      if (!person)
        throw wrongField('set.assignedTo', 'This person is not in the workspace any more. Choose another.')
    }
    const rows = await database.write(async (manager) => {
      const found = await manager.findBy(tables.leads, { id: In(ids) })
      const freed = isHeld === false ? found.filter(({ held }) => held !== '') : []
      await manager
        .createQueryBuilder()
        .update(tables.leads)
        .set({ ...values, ...(isHeld === false ? { held: '' as const } : {}), version: () => 'version + 1' })
        .where({ id: In(ids) })
        .execute()
      // What was held was not counted among the answers of its form, and nobody was mailed.
      for (const lead of freed) {
        const { pageId, part } = lead
        await mailFreed(manager, lead)
        await addToFormCount(manager, pageId, part, 1)
      }
      return found
    })
    tell(
      who.workspace.id,
      rows.map(({ campaignId }) => campaignId),
    )
    return {
      were: rows.map(({ id, state, assignedTo, tags, personMark }) => ({
        id,
        state,
        assignedTo,
        tags,
        personMark,
      })),
    }
  })

  mount(mounts, leadsApi.note, async ({ params: { id }, body: { text }, who }) => {
    const { campaignId } = await rowOf(id)
    await database.write((manager) =>
      manager.insert(tables.leadNotes, { leadId: id, at: Date.now(), personId: who.person.id, text }),
    )
    tell(who.workspace.id, [campaignId])
    return whole(id)
  })

  /** All that a person answered. */
  async function rowsOfPerson(id: number): Promise<LeadRow[]> {
    const row = await rowOf(id)
    const others = await reader.ask('leadsOfPerson', id, PERSON_MAX)
    return [
      row,
      ...(await findAmong(
        read,
        tables.leads,
        'id',
        others.map((each) => each.id),
      )),
    ]
  }

  mount(mounts, leadsApi.erase, async ({ params: { id }, who }) => {
    const rows = await rowsOfPerson(id)
    await eraseLeads({ database, files }, rows, {
      workspaceId: who.workspace.id,
      personId: who.person.id,
      why: 'asked',
    })
    // They may stand in files that somebody has not fetched yet.
    await jobs.dropFiles(
      who.workspace.id,
      LEAD_FILES,
      'The file was removed: somebody in it may have been erased. Download it anew.',
    )
    tell(
      who.workspace.id,
      rows.map(({ campaignId }) => campaignId),
    )
    return { erased: rows.length }
  })

  mount(mounts, leadsApi.person, async ({ params: { id }, response }) => {
    const answers = await Promise.all((await rowsOfPerson(id)).map((row) => whole(row.id)))
    attach(response, 'application/json; charset=utf-8', 'person.json')
    response.end(JSON.stringify({ exportedAt: new Date().toISOString(), answers }, null, 2))
    return undefined
  })

  mount(mounts, leadsApi.file, async ({ params: { id, key }, response }) => {
    const row = await rowOf(id)
    const file = Object.values(row.answers)
      .filter(isFile)
      .find((each) => each.key === key)
    if (!file) throw missing('file')
    // Whatever it is, browsers save it and never open it here.
    attach(response, 'application/octet-stream', file.name)
    for await (const piece of files.open(key)) {
      await writeTo(response, piece as Buffer)
      if (response.destroyed) return undefined
    }
    response.end()
    return undefined
  })

  leadNumberEndpoints(mounts, { read, reader, reviewer, formOf })
  leadFileEndpoints(mounts, { database, reader, exporter, jobView, tell })
  leadStateEndpoints(mounts, { database, live })
}
