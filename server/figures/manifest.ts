import { readFileSync, renameSync, rmSync, statSync, utimesSync } from 'node:fs'
import { join } from 'node:path'
import type { FactReader } from './fact.ts'
import { syncDirectory, writeWhole, type Segment } from './segment.ts'

/** Another layout of segments makes those of before worthless: they are built anew. */
const LAYOUT = 1

/** Which segments there are, in the order of their numbers, and up to which number everything is in them. */
export interface Manifest {
  readonly mark: number
  /** Tells the fact at the mark from another with the same number, as a database brought back from a backup has one. */
  readonly proof: string
  readonly segments: readonly Segment[]
}

export const NO_SEGMENTS: Manifest = { mark: 0, proof: '', segments: [] }

const pathOf = (directory: string) => join(directory, 'manifest.json')

export function writeManifest(directory: string, manifest: Manifest): void {
  const incoming = join(directory, 'manifest.incoming')
  writeWhole(incoming, JSON.stringify({ layout: LAYOUT, ...manifest }))
  // Two of them in one tick of the file system's clock are told apart all the same.
  const before = statSync(pathOf(directory), { throwIfNoEntry: false })?.mtimeMs ?? 0
  const at = new Date(Math.max(Date.now(), Math.floor(before) + 1))
  utimesSync(incoming, at, at)
  renameSync(incoming, pathOf(directory))
  syncDirectory(directory)
}

/** The manifest as it stands; nothing where there is none, or one of another layout. */
export function readManifest(directory: string): Manifest {
  try {
    // Written by `writeManifest`.
    const { layout, ...manifest } = JSON.parse(readFileSync(pathOf(directory), 'utf8')) as Manifest & {
      layout: number
    }
    return layout === LAYOUT ? manifest : NO_SEGMENTS
  } catch {
    return NO_SEGMENTS
  }
}

/** Whether segments are of a database as it is: not of another, or of one that was brought back to an earlier state. */
export function isPackedFrom({ mark, proof }: Manifest, reader: Pick<FactReader<never>, 'proof'>): boolean {
  return mark === 0 || reader.proof(mark) === proof
}

/** Has everything packed anew, by whichever process packs. */
export function packAnew(directory: string): void {
  rmSync(pathOf(directory), { force: true })
}

/** Changes whenever the manifest does. */
export function manifestEdition(directory: string): string {
  const state = statSync(pathOf(directory), { throwIfNoEntry: false, bigint: true })
  return state ? [state.mtimeNs, state.ctimeNs, state.ino].join(' ') : ''
}
