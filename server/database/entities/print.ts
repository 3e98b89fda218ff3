import { EntitySchema } from 'typeorm'
import type { ReleasedFile } from '@flimbo/core/print'
import type { Level, Look, PieceProof, Placement } from '@flimbo/core/symbol'
import { id, integer, json, optionalInteger, optionalJson, real, text } from './columns.ts'

/** How pieces are printed. Moments are UTC milliseconds. */

export interface HouseStyleRow {
  id: number
  workspaceId: number
  /** Null for the whole workspace. */
  clientId: number | null
  name: string
  look: Look
  version: number
  createdAt: number
}

export const houseStyles = new EntitySchema<HouseStyleRow>({
  name: 'house_styles',
  columns: {
    id,
    workspaceId: integer,
    clientId: optionalInteger,
    name: text,
    look: json,
    version: integer,
    createdAt: integer,
  },
})

/** What was measured of a piece, and what it was measured as. */
export interface ProofRow {
  codeId: number
  key: string
  readiness: PieceProof['readiness']
  proof: PieceProof
}

export const proofs = new EntitySchema<ProofRow>({
  name: 'proofs',
  columns: { codeId: { type: 'integer', primary: true }, key: text, readiness: text, proof: json },
})

/** What left the house for print. The short link it was printed with is kept part by part: its domain may be removed. */
export interface ReleaseRow {
  id: number
  workspaceId: number
  campaignId: number
  /** The code that was released, or the static code: one of the two. */
  codeId: number | null
  staticCodeId: number | null
  /** The job that released it. */
  jobId: number
  number: number
  at: number
  personId: number
  name: string
  text: string
  domainId: number
  slug: string
  link: string
  level: Level
  sizeMm: number
  styleName: string
  look: Look
  placement: Placement | null
  printRun: number | null
  printer: string
  note: string
  proof: PieceProof
  files: ReleasedFile[]
}

export const releases = new EntitySchema<ReleaseRow>({
  name: 'releases',
  columns: {
    id,
    workspaceId: integer,
    campaignId: integer,
    codeId: optionalInteger,
    staticCodeId: optionalInteger,
    jobId: integer,
    number: integer,
    at: integer,
    personId: integer,
    name: text,
    text,
    domainId: integer,
    slug: text,
    link: text,
    level: text,
    sizeMm: real,
    styleName: text,
    look: json,
    placement: optionalJson,
    printRun: optionalInteger,
    printer: text,
    note: text,
    proof: json,
    files: json,
  },
})
