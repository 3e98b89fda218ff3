import { In, type EntityManager } from 'typeorm'
import { CAMPAIGN_THINGS, idsAt, type CampaignThing, type Places, type Thing } from '@flimbo/core/api'
import { missing, Refusal } from '../api/index.ts'
import { tables, type CampaignRow } from '../database/index.ts'

/** What the things that an input names stand in: the campaign of the first of them, where one of them has one. */
export type Reached = CampaignRow | null

/**
 * Looks whether everything an input names is a workspace's.
 * @throws Refusal where something is not there, or is another workspace's: which of the two is not told
 */
export type FindReached = (workspaceId: number, places: Places, input: unknown) => Promise<Reached>

/** What stands in a campaign, the nearest to it first. */
const IN_CAMPAIGN = {
  page: tables.pages,
  route: tables.routes,
  code: tables.codes,
  staticCode: tables.staticCodes,
  lead: tables.leads,
  goal: tables.goals,
} as const
/** What stands in the workspace itself. */
const IN_WORKSPACE = {
  client: tables.clients,
  houseStyle: tables.houseStyles,
  job: tables.jobs,
  dayNote: tables.dayNotes,
  laneSet: tables.laneSets,
  mail: tables.mails,
  pageStyle: tables.pageStyles,
  question: tables.questions,
  release: tables.releases,
  report: tables.reports,
  reportLink: tables.reportLinks,
  reportMailing: tables.reportMailings,
  view: tables.views,
  watch: tables.watches,
} as const

// Its keys are what it names: none of them can be forgotten here.
const OWN_THINGS = [...(Object.keys(IN_WORKSPACE) as (keyof typeof IN_WORKSPACE)[]), 'domain'] as const

const CALLED: Readonly<Record<Thing, string>> = {
  campaign: 'campaign',
  page: 'page',
  route: 'route',
  code: 'code',
  staticCode: 'static code',
  lead: 'lead',
  goal: 'goal',
  client: 'client',
  job: 'job',
  laneSet: 'set of lanes',
  mail: 'mail',
  pageStyle: 'page style',
  release: 'release',
  report: 'report',
  reportLink: 'link',
  reportMailing: 'mailing',
  view: 'view',
  question: 'saved question',
  dayNote: 'note',
  watch: 'watch',
  domain: 'domain',
  file: 'file',
  houseStyle: 'house style',
}

/** The front door's own address, which all workspaces share. */
const SHARED_DOMAIN = 1
/** Ids that are looked for in one statement. */
const AT_ONCE = 1000

/** The one place that knows whose a thing is. */
export function findReached(read: EntityManager): FindReached {
  async function campaignOf(
    thing: CampaignThing,
    id: number,
    workspaceId: number,
  ): Promise<CampaignRow | null> {
    if (thing === 'campaign') return read.findOneBy(tables.campaigns, { id, workspaceId })
    return read
      .createQueryBuilder(tables.campaigns, 'c')
      .innerJoin(IN_CAMPAIGN[thing].options.name, 't', 't.campaignId = c.id')
      .where('t.id = :id AND c.workspaceId = :workspaceId', { id, workspaceId })
      .getOne()
  }

  /** How many of some things are the workspace's. */
  async function countOwn(
    thing: Exclude<CampaignThing, 'campaign'>,
    ids: readonly number[],
    workspaceId: number,
  ): Promise<number> {
    return read
      .createQueryBuilder(IN_CAMPAIGN[thing], 't')
      .innerJoin(tables.campaigns.options.name, 'c', 'c.id = t.campaignId')
      .where({ id: In(ids) })
      .andWhere('c.workspaceId = :workspaceId', { workspaceId })
      .getCount()
  }

  async function campaignOfAll(
    thing: CampaignThing,
    ids: readonly number[],
    workspaceId: number,
  ): Promise<Reached> {
    const [first = 0, ...others] = ids
    const campaign = await campaignOf(thing, first, workspaceId)
    if (others.length === 0) return campaign
    let own = campaign ? 1 : 0
    for (let i = 0; i < others.length; i += AT_ONCE) {
      const some = others.slice(i, i + AT_ONCE)
      own +=
        thing === 'campaign'
          ? await read.countBy(tables.campaigns, { id: In(some), workspaceId })
          : await countOwn(thing, some, workspaceId)
    }
    if (own < ids.length)
      throw new Refusal(
        'missing',
        `One of these ${CALLED[thing]}s is not there any more. Load the list again.`,
      )
    return campaign
  }

  async function isOwn(
    thing: Exclude<Thing, CampaignThing | 'file'>,
    id: number,
    workspaceId: number,
  ): Promise<boolean> {
    if (thing !== 'domain') return read.existsBy(IN_WORKSPACE[thing], { id, workspaceId })
    return id === SHARED_DOMAIN || read.existsBy(tables.domains, { id, workspaceId })
  }

  return async (workspaceId, places, input) => {
    /** Says it at the field of a form where the id stands in one. */
    const notOurs = (thing: Thing) => {
      const refusal = missing(CALLED[thing])
      const [place = ''] = [places[thing] ?? []].flat()
      const path = place.replace(/^body\./, '')
      if (path === place) return refusal
      const message = `This ${CALLED[thing]} does not exist. Choose another.`
      return new Refusal('missing', refusal.message, { fields: [{ path, message }] })
    }
    const named = (thing: Thing) => [
      ...new Set([places[thing] ?? []].flat().flatMap((place) => idsAt(input, place, 'number'))),
    ]
    for (const thing of OWN_THINGS) {
      for (const id of named(thing)) if (!(await isOwn(thing, id, workspaceId))) throw notOurs(thing)
    }
    const sums = new Set([places.file ?? []].flat().flatMap((place) => idsAt(input, place, 'string')))
    for (const sum of sums)
      if (!(await read.existsBy(tables.files, { sum, workspaceId }))) throw notOurs('file')
    let reached: Reached = null
    for (const thing of CAMPAIGN_THINGS) {
      const ids = named(thing)
      if (ids.length === 0) continue
      const campaign = await campaignOfAll(thing, ids, workspaceId)
      if (!campaign) throw notOurs(thing)
      reached ??= campaign
    }
    return reached
  }
}
