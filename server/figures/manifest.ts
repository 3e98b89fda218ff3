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
  /** The edition of what is folded: facts that are have no place in the segments. */
  readonly folds: string
}

export const noSegments = (folds: string): Manifest => ({ mark: 0, proof: '', segments: [], folds })

const pathOf = (directory: string) => join(directory, 'manifest.json')
/** What the manifest is to be once a fold is in force. */
const nextOf = (directory: string) => join(directory, 'manifest.next.json')

/** Writes what the manifest is to be as soon as a fold is in the database. */
export function writeNextManifest(directory: string, manifest: Manifest): void {
  writeWhole(nextOf(directory), JSON.stringify({ layout: LAYOUT, ...manifest }))
  syncDirectory(directory)
}

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

/**
 * The manifest as it stands for what is folded: nothing where there is none, one of another layout, or of another
 * edition of what is folded.
 */
export function readManifest(directory: string, folds: string): Manifest {
  for (const path of [pathOf(directory), nextOf(directory)]) {
    const found = readFrom(path)
    if (found?.folds === folds) return found
  }
  return noSegments(folds)
}

function readFrom(path: string): Manifest | null {
  try {
    // Written by `writeManifest`; before there were folds, nothing was said of them.
    const {
      layout,
      folds = '',
      ...manifest
    } = JSON.parse(readFileSync(path, 'utf8')) as Partial<Manifest> &
      Omit<Manifest, 'folds'> & { layout: number }
    return layout === LAYOUT ? { ...manifest, folds } : null
  } catch {
    return null
  }
}

/** Whether segments are of a database as it is: not of another, or of one that was brought back to an earlier state. */
export function isPackedFrom({ mark, proof }: Manifest, reader: Pick<FactReader<never>, 'proof'>): boolean {
  return mark === 0 || reader.proof(mark) === proof
}

/** Has everything packed anew, by whichever process packs. */
export function packAnew(directory: string): void {
  rmSync(nextOf(directory), { force: true })
  rmSync(pathOf(directory), { force: true })
}

/** A fold is in force, and its manifest stands where manifests do. */
export function dropNextManifest(directory: string): void {
  rmSync(nextOf(directory), { force: true })
}

/** Changes whenever the manifest does. */
export function manifestEdition(directory: string): string {
  const state = statSync(pathOf(directory), { throwIfNoEntry: false, bigint: true })
  return state ? [state.mtimeNs, state.ctimeNs, state.ino].join(' ') : ''
}
