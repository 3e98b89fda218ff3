import { z } from 'zod'
import { endpoint, idParams, idQuery, pageOf, pageQuery } from '../api/index.ts'
import { revision } from '../routing/index.ts'
import { FINDING_KINDS, plainName } from '../tagging/index.ts'
import { isSlug } from './slug.ts'
import { code, type Code } from './code.ts'
import { newCode, seriesPiece, codeSet, codeChange } from './piece.ts'
import {
  CODE_SORTS,
  GROUPS,
  codeFilter,
  change,
  CHANGES_MAX,
  CHANGES_BYTES_MAX,
  group,
  SERIES_MAX,
  seriesNumbers,
} from './lists.ts'

export const codesApi = {
  list: endpoint({
    method: 'GET',
    path: '/codes',
    room: 'codes',
    access: { right: 'view', things: { campaign: 'query.campaignId', route: 'query.routeId' } },
    summary: 'The codes of a campaign or a route',
    query: pageQuery(CODE_SORTS, 'createdAt')
      .extend(codeFilter.shape)
      .extend({ group: z.enum(GROUPS).optional() }),
    answer: pageOf(code),
  }),
  groups: endpoint({
    method: 'GET',
    path: '/code-groups',
    room: 'codes',
    access: { right: 'view', things: { campaign: 'query.campaignId', route: 'query.routeId' } },
    summary: 'Pieces of a campaign summed by medium or by route',
    query: codeFilter.extend({ by: z.enum(GROUPS) }),
    answer: z.object({ rows: z.array(group) }),
  }),
  changeMany: endpoint({
    method: 'POST',
    path: '/codes/changes',
    room: 'codes',
    access: {
      right: 'edit',
      things: {
        campaign: 'body.matching.campaignId',
        route: 'body.matching.routeId',
        code: 'body.changes.id',
        houseStyle: ['body.changes.set.styleId', 'body.set.styleId'],
        file: ['body.changes.set.placement.file', 'body.set.placement.file'],
      },
    },
    bytesMax: CHANGES_BYTES_MAX,
    summary:
      'Change many pieces at once: named ones, or all that match; what cannot be changed is told and left',
    body: z.union([
      z.strictObject({
        changes: z.array(change).min(1).max(CHANGES_MAX, 'That is more than 50,000 pieces at once.'),
      }),
      z.strictObject({ matching: codeFilter, set: codeSet }),
      z.strictObject({
        matching: codeFilter,
        fix: z.strictObject({ kind: z.enum(FINDING_KINDS), field: z.string() }),
      }),
    ]),
    answer: z.object({
      changed: z.int(),
      refused: z.array(z.object({ id: z.int(), name: z.string(), sentence: z.string() })),
      /** What takes all of it back, to be sent the same way. */
      undo: z.array(change),
    }),
  }),
  move: endpoint({
    method: 'POST',
    path: '/codes/moves',
    room: 'codes',
    access: {
      right: 'edit',
      things: { campaign: 'body.campaignId', code: 'body.ids' },
    },
    summary: 'Move pieces to another campaign, with their history, onto a route there or a copy of their own',
    body: z.strictObject({
      ids: z.array(z.int()).min(1).max(CHANGES_MAX),
      campaignId: z.int(),
      routeId: z.int().nullable(),
    }),
    answer: z.object({ moved: z.int() }),
  }),
  copy: endpoint({
    method: 'POST',
    path: '/codes/copies',
    room: 'codes',
    access: { right: 'edit', things: { code: 'body.ids' } },
    status: 201,
    summary: 'Duplicate pieces: the same in everything but the short link and the key',
    body: z.strictObject({ ids: z.array(z.int()).min(1).max(SERIES_MAX) }),
    answer: z.object({ ids: z.array(z.int()) }),
  }),
  series: endpoint({
    method: 'POST',
    path: '/codes/series',
    room: 'codes',
    access: {
      right: 'edit',
      things: {
        campaign: 'body.piece.campaignId',
        houseStyle: 'body.piece.styleId',
        file: 'body.piece.placement.file',
      },
    },
    status: 201,
    summary: 'Issue a numbered series; {n} in its texts is the number',
    body: z.strictObject({ piece: seriesPiece, numbers: seriesNumbers }),
    answer: z.object({ ids: z.array(z.int()) }),
  }),
  create: endpoint({
    method: 'POST',
    path: '/codes',
    room: 'codes',
    access: {
      right: 'edit',
      things: {
        campaign: 'body.campaignId',
        houseStyle: 'body.styleId',
        file: 'body.placement.file',
      },
    },
    status: 201,
    summary: 'Issue a code, with a route of its own or a shared one',
    body: newCode,
    answer: code,
  }),
  get: endpoint({
    method: 'GET',
    path: '/codes/:id',
    room: 'codes',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'One code',
    params: idParams,
    answer: code,
  }),
  change: endpoint({
    method: 'PATCH',
    path: '/codes/:id',
    room: 'codes',
    access: {
      right: 'edit',
      things: { code: 'params.id', houseStyle: 'body.styleId', file: 'body.placement.file' },
    },
    summary: 'Change a code; what is printed of it goes on working',
    params: idParams,
    body: codeChange,
    answer: code,
  }),
  revisions: endpoint({
    method: 'GET',
    path: '/codes/:id/revisions',
    room: 'codes',
    access: { right: 'view', things: { code: 'params.id' } },
    summary: 'Every change of a code, the newest first',
    params: idParams,
    query: pageQuery(['at'], 'at'),
    answer: pageOf(revision),
  }),
  slug: endpoint({
    method: 'GET',
    path: '/slugs/:slug',
    room: 'codes',
    access: { right: 'view', things: { campaign: 'query.campaignId' }, orAll: true },
    summary: 'Whether a short link is still free',
    params: z.strictObject({ slug: z.string().max(200) }),
    query: z.strictObject({ campaignId: idQuery.optional(), domainId: idQuery.optional() }),
    /** `instead` are free ones like it. */
    answer: z.object({
      slug: z.string(),
      shortLink: z.string(),
      free: z.boolean(),
      why: z.string().optional(),
      instead: z.array(z.string()),
    }),
  }),
}

/** A file name for a code's symbol: its name in plain signs, then its slug. */
export function symbolFileName(of: Pick<Code, 'name' | 'slug'>, extension: string): string {
  const plain = plainName(of.name, 60)
  return `${plain ? `${plain}-` : ''}${isSlug(of.slug) ? of.slug : 'symbol'}.${extension}`
}
