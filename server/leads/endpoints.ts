import { In, type EntityManager } from 'typeorm'
import { quantity } from '@flimbo/core/formats'
import { isFile } from '@flimbo/core/forms'
import {
  leadsApi,
  leadFileLook,
  leadStates,
  USUAL_STATES,
  type LeadFileLook,
  type LeadStates,
  type Lead,
  type LeadFilter,
  type LeadNumbers,
  type NumbersBy,
} from '@flimbo/core/leads'
import { dayIn, spanOfDays } from '@flimbo/core/time'
import { attach, missing, mount, Refusal, wrongField, writeTo, type Mounts } from '../api/index.ts'
import { findAmong, tables, type Database, type LeadRow } from '../database/index.ts'
import type { Config } from '../config/index.ts'
import type { Exporter, JobViewer } from '../jobs/index.ts'
import { mailLists, queueMail } from '../mail/index.ts'
import type { Reader } from '../reader/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { readSetting, writeSetting, type Section } from '../workspace/index.ts'
import { answerFiles } from './answerFiles.ts'
import { eraseLeads } from './erase.ts'
import { answersIn, shownForms, titleIn } from './formOf.ts'
import { countAnswers } from './formCounts.ts'
import { importLeads } from './importLeads.ts'
import { mailsOf } from './mailsOf.ts'
import { writeCsv, writeSheet } from './leadFiles.ts'
import { leadTable } from './leadTable.ts'
import { leadRates } from './rates.ts'
import type { LeadQuery } from './queries.ts'

interface Parts {
  readonly database: Database
  readonly reader: Reader
  /** Another reading thread, for what takes long. */
  readonly reviewer: Reader
  readonly live: LiveHub
  readonly config: Pick<Config, 'dataDir'>
  readonly exporter: Exporter
  readonly jobView: JobViewer
}

/** The states of leads, as a section of a workspace's settings. */
const LEAD_STATES: Section<LeadStates> = { name: 'leadStates', schema: leadStates, fallback: USUAL_STATES }

/** A file of leads that somebody wants. */
interface LeadFileOrder {
  readonly query: LeadQuery
  readonly look: LeadFileLook
}
const FORMATS = {
  csv: { type: 'text/csv; charset=utf-8; header=present', write: writeCsv },
  xlsx: {
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    write: writeSheet,
  },
} as const
const OTHERS_MAX = 50
/** Of one person: nobody answers so often. */
const PERSON_MAX = 10_000
const EARLIEST = '1970-01-01'

/** The endpoints of leads, as `core`’s contract describes them. */
export function leadsEndpoints(
  mounts: Mounts,
  { database, reader, reviewer, live, config, exporter, jobView }: Parts,
): void {
  const { read } = database
  const files = answerFiles(config.dataDir)
  const formOf = shownForms(read)
  const mails = mailLists(read)

  /** Which leads are meant; days are those of the campaign, or of the workspace. */
  function queryOf(workspaceId: number, zone: string, { from, to, ...filter }: LeadFilter): LeadQuery {
    if (from !== undefined && to !== undefined && to < from)
      throw wrongField('to', 'The last day lies before the first.')
    const span = spanOfDays(zone, from ?? EARLIEST, to ?? dayIn(zone, Date.now()))
    return { ...filter, workspaceId, start: span.start, end: span.end }
  }

  /** Groups by the names of what they are of. */
  async function named(groups: LeadNumbers['groups'], by: NumbersBy | undefined) {
    if (by !== 'piece') return groups
    const codes = await findAmong(
      read,
      tables.codes,
      'id',
      groups.map(({ key }) => Number(key)),
    )
    const nameOf = new Map(codes.map(({ id, name }) => [String(id), name]))
    return groups.map((group) => ({ ...group, name: nameOf.get(group.key) ?? '' }))
  }

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
    const { answer, confirmBy } = mailsOf(settings, at)
    const mail = { workspaceId, campaignId, leadId: id, at }
    if (confirmBy !== null) {
      await manager.update(tables.leads, { id }, { confirmBy })
      await queueMail(manager, { ...mail, kind: 'confirm' })
    }
    if (answer)
      await queueMail(manager, {
        ...mail,
        kind: 'answer',
        state: confirmBy === null ? 'waiting' : 'unconfirmed',
      })
  }

  const tell = (workspaceId: number, campaignIds: Iterable<number>) => {
    for (const campaignId of new Set(campaignIds)) live.tell(workspaceId, { type: 'leads', campaignId })
  }

  mount(
    mounts,
    leadsApi.list,
    async ({ query: { page, pageSize, order, sort: _at, ...filter }, who, campaign }) => {
      const query = queryOf(who.workspace.id, campaign?.zone ?? who.workspace.zone, filter)
      const found = await reader.ask('leadsPage', query, order, pageSize, page * pageSize)
      return { ...found, page, pageSize }
    },
  )

  mount(mounts, leadsApi.forms, async ({ query: { campaignId } }) => ({
    rows: await reader.ask('answeredForms', campaignId),
  }))

  mount(mounts, leadsApi.numbers, async ({ query: { part, by, ...filter }, who, campaign }) => {
    const zone = campaign?.zone ?? who.workspace.zone
    const query = queryOf(who.workspace.id, zone, filter)
    const forms = await reader.ask('leadForms', query)
    const shownLast = forms.find((each) => each.pageId === filter.pageId && each.part === part)
    const form = shownLast ? await formOf(shownLast.pageRevisionId, part) : null
    const { questions, languages } = form ?? { questions: [], languages: [] }
    // Other figures do not wait while thousands of answers are counted.
    const numbers = await reviewer.ask('leadNumbers', query, { part, questions, languages }, by, zone)
    return { ...numbers, groups: await named(numbers.groups, by) }
  })

  mount(mounts, leadsApi.rates, async ({ query: { by, ...filter }, who, campaign }) => {
    const zone = campaign?.zone ?? who.workspace.zone
    return leadRates(
      { read, reader },
      { ...filter, by, zone, query: queryOf(who.workspace.id, zone, { ...filter, held: 'no' }) },
    )
  })

  mount(mounts, leadsApi.variants, async ({ params: { id }, query: { from, to }, campaign }) => {
    const { zone } = campaign
    const start = from === undefined ? 0 : spanOfDays(zone, from, from).start
    const end = to === undefined ? Number.MAX_SAFE_INTEGER : spanOfDays(zone, to, to).end
    return { rows: await reader.ask('leadsByVariant', id, start, end) }
  })

  mount(
    mounts,
    leadsApi.importAnswers,
    async ({ body: { pageId, part, codeId, campaignId, lines }, who, campaign }) => {
      const [page, code] = await Promise.all([
        read.findOneBy(tables.pages, { id: pageId, campaignId }),
        read.findOneBy(tables.codes, { id: codeId, campaignId }),
      ])
      const form = page?.live?.parts.find(({ id }) => id === part)
      if (!page?.live || form?.kind !== 'form')
        throw wrongField('part', 'This form is not on its page any more. Choose another.')
      if (!code) throw wrongField('codeId', 'This piece is not in the campaign any more. Choose another.')
      const outcome = await importLeads(
        database,
        {
          workspaceId: who.workspace.id,
          workspaceZone: who.workspace.zone,
          page,
          part,
          form,
          languages: page.live.languages,
          code,
          utmCampaign: campaign.utmCampaign,
        },
        lines,
      )
      tell(who.workspace.id, [campaignId])
      return outcome
    },
  )

  mount(mounts, leadsApi.states, ({ who }) => readSetting(read, who.workspace.id, LEAD_STATES))

  mount(mounts, leadsApi.changeStates, async ({ body, who }) => {
    const kept = new Set(body.value.states.map(({ key }) => key))
    const { states } = (await readSetting(read, who.workspace.id, LEAD_STATES)).value
    for (const { key, name } of states) {
      if (kept.has(key)) continue
      const count = await read.countBy(tables.leads, { workspaceId: who.workspace.id, state: key })
      if (count > 0)
        throw new Refusal(
          'taken',
          `${quantity(count, 'lead is', 'leads are')} in the state “${name}”. Set them to another first.`,
        )
    }
    const stored = await writeSetting(database, who.workspace.id, LEAD_STATES, body)
    live.tell(who.workspace.id, { type: 'change', of: 'campaign', id: 0 })
    return stored
  })

  mount(mounts, leadsApi.fresh, async ({ who }) => ({
    rows: await reader.ask('freshLeads', who.workspace.id),
  }))

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
        await countAnswers(manager, pageId, part, 1)
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

  for (const format of ['csv', 'xlsx'] as const)
    exporter.define<LeadFileOrder>({
      what: `leads.${format}`,
      type: FORMATS[format].type,
      // It was an order when it was stored.
      read: (stored) => stored as LeadFileOrder,
      nameOf: () => Promise.resolve(`leads.${format}`),
      async write(out, { query, look }, advance) {
        const { states } = (await readSetting(read, query.workspaceId, LEAD_STATES)).value
        const nameOf = (state: string) => states.find(({ key }) => key === state)?.name ?? state
        await FORMATS[format].write(out, leadTable({ database, reader, nameOf }, query, look), (done) => {
          advance(done, 0)
        })
      },
    })
  mount(mounts, leadsApi.makeFile, async ({ body: { look, ...filter }, who, campaign }) => {
    const { workspace, person } = who
    const query = queryOf(workspace.id, campaign?.zone ?? workspace.zone, filter)
    const whole = leadFileLook.parse(look ?? {})
    const order: LeadFileOrder = { query, look: whole }
    const job = await exporter.order(`leads.${whole.format}`, order, {
      workspaceId: workspace.id,
      personId: person.id,
      campaignId: campaign?.id ?? null,
      title: `Leads as ${whole.format.toUpperCase()}${campaign ? `: ${campaign.name}` : ''}`,
    })
    return jobView.one(job, who)
  })
}
