import { z } from 'zod'
import { line } from '../api/index.ts'
import { level } from '../codes/index.ts'
import { fileSum } from '../files/index.ts'
import { finish, look, pieceProof, placement } from '../symbol/index.ts'

/** A file as it left the house. */
export const releasedFile = z.object({
  name: z.string(),
  type: z.string(),
  bytes: z.int(),
  sum: fileSum,
  finish,
})
export type ReleasedFile = z.infer<typeof releasedFile>

/** What left the house for print: never changed, whatever becomes of the piece. */
export const release = z.object({
  id: z.int(),
  number: z.int(),
  at: z.int(),
  by: z.string(),
  /** The piece's name, what its symbol carries, and its short link, as they were. */
  name: z.string(),
  text: z.string(),
  link: z.string(),
  level,
  sizeMm: z.number(),
  styleName: z.string(),
  look,
  placement: placement.nullable(),
  printRun: z.int().nullable(),
  printer: z.string(),
  note: z.string(),
  proof: pieceProof,
  files: z.array(releasedFile),
})
export type Release = z.infer<typeof release>

export const RELEASE_FILES_MAX = 6

export const releaseOrder = {
  /** The files that leave the house of each piece. */
  finishes: z
    .array(finish)
    .min(1, 'Choose at least one file to release.')
    .max(RELEASE_FILES_MAX, `Release at most ${String(RELEASE_FILES_MAX)} files of a piece.`),
  printer: line('the printer', 200),
  note: line('the note', 1000),
  /** Whether pieces that will fail are released too. */
  failing: z.enum(['refuse', 'release']).default('refuse'),
}

/** A released piece whose short link does not lead anybody on any more. */
export const brokenRelease = z.object({
  codeId: z.int(),
  campaignId: z.int(),
  campaignName: z.string(),
  name: z.string(),
  link: z.string(),
  why: z.string(),
})
export type BrokenRelease = z.infer<typeof brokenRelease>
