import { contentOf, shortLink } from '@flimbo/core/codes'
import { writeContent } from '@flimbo/core/contents'
import type { FileNameFields } from '@flimbo/core/plan'
import { proofKey } from '@flimbo/core/symbol'
import {
  findAmong,
  tables,
  type CampaignRow,
  type CodeRow,
  type Database,
  type HouseStyleRow,
  type StaticCodeRow,
} from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import type { FileLibrary } from '../files/index.ts'
import { taggedPiece } from '../tagging/index.ts'
import type { PrintPiece } from './draw.ts'
import { styler } from './styling.ts'

interface Parts {
  readonly database: Database
  readonly domains: Domains
  readonly files: FileLibrary
}

/** Pieces by their numbers, and static codes by theirs. */
export interface Chosen {
  readonly ids: readonly number[]
  readonly staticIds: readonly number[]
}
export const chosenCount = ({ ids, staticIds }: Chosen) => ids.length + staticIds.length

/** A piece or a static code ready to be drawn, and what a proof of it depends on. */
export type ReadyPiece = {
  readonly style: HouseStyleRow | null
  readonly piece: PrintPiece
  readonly key: string
  /** What stands for its short link in the names of files. */
  readonly fileSlug: string
} & (
  { readonly kind: 'code'; readonly row: CodeRow } | { readonly kind: 'static'; readonly row: StaticCodeRow }
)

const AT_ONCE = 500

/** What a proof of a piece depends on. */
export function keyOf(row: CodeRow, style: HouseStyleRow | null, domains: Domains): string {
  const origin = domains.origin(row.domainId)
  return proofKey({
    ...row,
    text: contentOf({ origin, slug: row.slug }),
    link: shortLink(origin, row.slug),
    style,
  })
}

/** What a proof of a static code depends on. */
export function staticKeyOf(row: StaticCodeRow, style: HouseStyleRow | null): string {
  return proofKey({ ...row, text: writeContent(row.content), link: '', placement: null, style })
}

/** Makes pieces ready to be drawn: with their house style and the pictures it needs. */
export function pieceMaker({ database, domains, files }: Parts) {
  const { read } = database
  const styleFor = styler({ database, files })

  /** Some rows of one workspace. */
  async function of(workspaceId: number, rows: readonly CodeRow[]): Promise<ReadyPiece[]> {
    const stylingOf = await styleFor(workspaceId, rows)
    return rows.map((row) => {
      const { style, look, files: pictures } = stylingOf(row)
      const origin = domains.origin(row.domainId)
      const piece: PrintPiece = {
        name: row.name,
        text: contentOf({ origin, slug: row.slug }),
        level: row.level,
        mm: row.sizeMm,
        look,
        placement: row.placement,
        link: shortLink(origin, row.slug).replace(/^https?:\/\//, ''),
        files: pictures,
      }
      return { kind: 'code', row, style, piece, key: keyOf(row, style, domains), fileSlug: row.slug }
    })
  }

  async function ofStatic(workspaceId: number, rows: readonly StaticCodeRow[]): Promise<ReadyPiece[]> {
    const stylingOf = await styleFor(workspaceId, rows)
    return rows.map((row) => {
      const { style, look, files: pictures } = stylingOf(row)
      const piece: PrintPiece = {
        name: row.name,
        text: writeContent(row.content),
        level: row.level,
        mm: row.sizeMm,
        look,
        placement: null,
        link: '',
        files: pictures,
      }
      return { kind: 'static', row, style, piece, key: staticKeyOf(row, style), fileSlug: 'STATIC' }
    })
  }

  return {
    of,
    ofStatic,
    /** Many, some at a time: first the pieces, then the static codes. */
    async *each(
      workspaceId: number,
      { ids, staticIds }: Chosen,
    ): AsyncGenerator<ReadyPiece, void, undefined> {
      for (let i = 0; i < ids.length; i += AT_ONCE) {
        const some = ids.slice(i, i + AT_ONCE)
        const rows = new Map((await findAmong(read, tables.codes, 'id', some)).map((row) => [row.id, row]))
        yield* await of(
          workspaceId,
          some.flatMap((id) => rows.get(id) ?? []),
        )
      }
      for (let i = 0; i < staticIds.length; i += AT_ONCE) {
        const some = staticIds.slice(i, i + AT_ONCE)
        const found = await findAmong(read, tables.staticCodes, 'id', some)
        const rows = new Map(found.map((row) => [row.id, row]))
        yield* await ofStatic(
          workspaceId,
          some.flatMap((id) => rows.get(id) ?? []),
        )
      }
    },
    /** What files and captions of a piece may name. Static codes have neither tags nor a short link. */
    async fieldsOf(ready: ReadyPiece, campaign: CampaignRow): Promise<Omit<FileNameFields, 'n'> | null> {
      if (ready.kind === 'static') return staticFields(ready.row, campaign)
      const [route] = await findAmong(read, tables.routes, 'id', [ready.row.routeId])
      return route ? taggedPiece(ready.row, route, campaign.utmCampaign) : null
    },
  }
}
export type PieceMaker = ReturnType<typeof pieceMaker>

const staticFields = (
  { name, place, sizeMm, reference, content }: StaticCodeRow,
  campaign: CampaignRow,
): Omit<FileNameFields, 'n'> => ({
  name,
  place,
  size: sizeMm,
  medium: content.kind,
  source: 'static',
  term: '',
  reference,
  key: '',
  route: '',
  campaign: campaign.utmCampaign,
  link: 'static',
})
