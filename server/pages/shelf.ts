import { IsNull } from 'typeorm'
import { LRUCache } from 'lru-cache'
import { asksNothing, compileCondition, languagesIn, type Test } from '@flimbo/core/conditions'
import {
  filesOfPage,
  filesOfStyle,
  PLAIN_STYLE,
  type PageContent,
  type PageStyle,
  type ShownFile,
  type WalletSetting,
} from '@flimbo/core/pages'
import { walletOf } from './wallet.ts'
import { findAmong, tables, type FileRow, type ReadOnly } from '../database/index.ts'

/** A page as the front door keeps it ready. */
export interface ShelvedPage {
  readonly id: number
  readonly workspaceId: number
  readonly revisionId: number
  readonly changedAt: number
  readonly content: PageContent
  readonly style: PageStyle
  /** Maps about its places, by `mapKey`. */
  readonly maps: Readonly<Record<string, string>>
  /** The uploaded files it shows, by their keys. */
  readonly files: ReadonlyMap<string, ShownFile>
  /** What contacts on it are signed with as wallet passes; null where nothing. */
  readonly wallet: WalletSetting | null
  /** Whom each part is shown to, by its id; those for everybody are not in it. */
  readonly tests: ReadonlyMap<string, Test>
}

/** A file that a front door sends. */
export interface ShelvedFile {
  readonly sum: string
  readonly name: string
  readonly type: string
  readonly widths: readonly number[]
}

/** A style, with the pictures it needs. */
export interface Worn {
  readonly style: PageStyle
  readonly files: ReadonlyMap<string, ShownFile>
}

/** The pages and public files that a front door knows, in memory where they were asked for lately. */
export interface PageShelf {
  /** A page that is live; null where there is none. */
  page(id: number): Promise<ShelvedPage | null>
  /** A file by its public key; null where there is none. */
  file(key: string): Promise<ShelvedFile | null>
  /** What the front door wears at a campaign's codes, at once; undefined where the database must be asked. */
  wornNow(campaignId: number): Worn | undefined
  worn(campaignId: number): Promise<Worn>
  /** What it wears where a domain has no such short link. */
  wornAt(domainId: number): Promise<Worn>
  /** Makes the next scan see what is stored now. */
  forget(): void
}

/** Signs of content that are kept: some hundred of the longest pages. */
const CONTENT_SIGNS_MAX = 40_000_000
const FILES_MAX = 20_000
const PLAIN: Worn = { style: PLAIN_STYLE, files: new Map() }
/** The front door's own address, which all workspaces share. */
const OWN_DOMAIN = 1
const STYLES_MAX = 5000

/** A file as pages show it; what it is called is part of its address, so that it is saved under that. */
export function shownFile({ key, sum, name, type, bytes, width, height, widths }: FileRow): ShownFile {
  return { key, mark: sum.slice(0, 8), name, type, bytes, width, height, widths }
}

export function pageShelf({ read }: Pick<ReadOnly, 'read'>): PageShelf {
  const pages = new LRUCache<number, { page: ShelvedPage | null }>({
    maxSize: CONTENT_SIGNS_MAX,
    sizeCalculation: ({ page }) => 500 + (page ? JSON.stringify(page.content).length : 0),
  })
  const files = new LRUCache<string, { file: ShelvedFile | null }>({ max: FILES_MAX })
  const styles = new LRUCache<number, Worn>({ max: STYLES_MAX })
  const domains = new LRUCache<number, Worn>({ max: STYLES_MAX })
  /** Goes up with each change: what was read before one must not be kept after it. */
  let edition = 0

  /** The style that was chosen, or that of the client, or of the workspace. */
  async function findStyle(
    { workspaceId, clientId }: { workspaceId: number; clientId: number },
    chosen: number | null,
  ): Promise<PageStyle> {
    const own = chosen === null ? null : await read.findOneBy(tables.pageStyles, { id: chosen, workspaceId })
    const found =
      own ??
      (await read.findOneBy(tables.pageStyles, { workspaceId, clientId, isDefault: true })) ??
      (await read.findOneBy(tables.pageStyles, { workspaceId, clientId: IsNull(), isDefault: true }))
    return found?.style ?? PLAIN_STYLE
  }

  async function wornBy(owner: { workspaceId: number; clientId: number }): Promise<Worn> {
    const style = await findStyle(owner, null)
    const rows = await findAmong(read, tables.files, 'key', filesOfStyle(style), {
      workspaceId: owner.workspaceId,
    })
    return { style, files: new Map(rows.map((file) => [file.key, shownFile(file)])) }
  }

  /** The style of the client that a domain is for, or of its workspace; of the front door's own address, of the one workspace there is. */
  async function wornByDomain(domainId: number): Promise<Worn> {
    const client = await read.findOneBy(tables.clients, { domainId })
    if (client) return wornBy({ workspaceId: client.workspaceId, clientId: client.id })
    const domain = await read.findOneBy(tables.domains, { id: domainId })
    const only = (await read.find(tables.workspaces, { select: { id: true }, take: 2 })) as { id: number }[]
    const workspaceId = domainId === OWN_DOMAIN && only.length === 1 ? only[0]?.id : domain?.workspaceId
    return typeof workspaceId === 'number' ? wornBy({ workspaceId, clientId: 0 }) : PLAIN
  }

  async function load(id: number): Promise<ShelvedPage | null> {
    const row = await read.findOneBy(tables.pages, { id })
    const campaign = row && (await read.findOneBy(tables.campaigns, { id: row.campaignId }))
    if (!row?.live || !campaign) return null
    const content = row.live
    const style = await findStyle(campaign, content.styleId)
    const { workspaceId } = campaign
    const keys = [...filesOfPage(content), ...filesOfStyle(style)]
    const rows = await findAmong(read, tables.files, 'key', keys, { workspaceId })
    const conditions = content.parts.map(({ condition }) => condition)
    const speaks = [...new Set([...content.languages, ...languagesIn(conditions)])]
    return {
      id,
      workspaceId,
      revisionId: row.revisionId,
      changedAt: row.changedAt,
      content,
      style,
      maps: row.maps,
      wallet: await walletOf(read, workspaceId),
      files: new Map(rows.map((file) => [file.key, shownFile(file)])),
      tests: new Map(
        content.parts.flatMap(({ id: partId, condition }) =>
          asksNothing(condition) ? [] : [[partId, compileCondition(condition, speaks)] as const],
        ),
      ),
    }
  }

  return {
    async page(id) {
      const known = pages.get(id)
      if (known) return known.page
      const before = edition
      const page = await load(id)
      if (edition === before) pages.set(id, { page })
      return page
    },
    async file(key) {
      const known = files.get(key)
      if (known) return known.file
      const before = edition
      const row = await read.findOneBy(tables.files, { key })
      const file = row && { sum: row.sum, name: row.name, type: row.type, widths: row.widths }
      if (edition === before) files.set(key, { file })
      return file
    },
    wornNow: (campaignId) => styles.get(campaignId),
    async worn(campaignId) {
      const known = styles.get(campaignId)
      if (known) return known
      const before = edition
      const campaign = await read.findOneBy(tables.campaigns, { id: campaignId })
      const worn = campaign ? await wornBy(campaign) : PLAIN
      if (edition === before) styles.set(campaignId, worn)
      return worn
    },
    async wornAt(domainId) {
      const known = domains.get(domainId)
      if (known) return known
      const before = edition
      const worn = await wornByDomain(domainId)
      if (edition === before) domains.set(domainId, worn)
      return worn
    },
    forget() {
      edition++
      pages.clear()
      files.clear()
      styles.clear()
      domains.clear()
    },
  }
}
