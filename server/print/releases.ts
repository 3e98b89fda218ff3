import { pipeline } from 'node:stream/promises'
import type { Response } from 'express'
import { symbolFileName } from '@flimbo/core/codes'
import { filesOf } from '@flimbo/core/houseStyles'
import type { Release, ReleasedFile } from '@flimbo/core/print'
import type { Finish, FileFormat } from '@flimbo/core/symbol'
import { quantity } from '@flimbo/core/formats'
import { attach, Refusal } from '../api/index.ts'
import { tables, type Database, type ReleaseRow, peopleNames } from '../database/index.ts'
import { blobStore, roomKeeper, type FileLibrary } from '../files/index.ts'
import { JobCancelled, type Jobs } from '../jobs/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { PrintFiles } from './files.ts'
import { chosenCount, type PieceMaker, type ReadyPiece } from './pieces.ts'
import type { Proofing } from './proofs.ts'

interface Parts {
  readonly database: Database
  readonly live: LiveHub
  readonly jobs: Jobs
  readonly files: FileLibrary
  readonly pieces: PieceMaker
  readonly printFiles: PrintFiles
  readonly proofs: Proofing
  /** Where released files are kept. */
  readonly directory: string
}

/** What is released, and how. */
export interface ReleaseOrder {
  readonly ids: readonly number[]
  /** What an earlier version stored names no static codes. */
  readonly staticIds?: readonly number[]
  readonly finishes: readonly Finish[]
  readonly printer: string
  readonly note: string
  readonly failing: 'refuse' | 'release'
}

export const MEDIA_TYPES: Readonly<Record<FileFormat, string>> = {
  svg: 'image/svg+xml',
  pdf: 'application/pdf',
  eps: 'application/postscript',
  png: 'image/png',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
}
/** So many names stand in a sentence. */
const NAMED_MAX = 5

/** Releases pieces for print, and keeps what left the house. */
export function releasing({ database, live, jobs, files, pieces, printFiles, proofs, directory }: Parts) {
  const { read } = database
  const store = blobStore(directory)

  files.usedBy(async (workspaceId) => {
    const rows = await read.find(tables.releases, {
      where: { workspaceId },
      select: { id: true, name: true, number: true, look: true, placement: true },
    })
    return rows.flatMap(({ id, name, number, look, placement }) =>
      [...filesOf(look), ...(placement ? [placement.file] : [])].map((sum) => ({
        sum,
        use: { by: 'release' as const, id, name: `${name}, release ${String(number)}` },
      })),
    )
  })

  /** The files of a piece, made and kept. @throws Refusal where one cannot be made */
  async function keptFiles(ready: ReadyPiece, finishes: readonly Finish[]): Promise<ReleasedFile[]> {
    const kept: ReleasedFile[] = []
    for (const [i, finish] of finishes.entries()) {
      const made = await printFiles.drawn(ready.piece, finish)
      if (!made.ok) throw new Refusal('invalid', `“${ready.row.name}”: ${made.sentence}`)
      const sum = await store.keep(made.bytes)
      const name = symbolFileName({ name: ready.row.name, slug: ready.fileSlug }, finish.format)
      kept.push({
        name: i === 0 ? name : name.replace(/(\.\w+)$/, `-${String(i + 1)}$1`),
        type: MEDIA_TYPES[finish.format],
        bytes: made.bytes.length,
        sum,
        finish,
      })
    }
    return kept
  }

  async function release(
    ready: ReadyPiece,
    { finishes, printer, note, failing }: ReleaseOrder,
    of: Pick<ReleaseRow, 'workspaceId' | 'campaignId' | 'personId' | 'jobId'>,
  ): Promise<'released' | 'will-fail'> {
    const { row, style, piece } = ready
    const proof = (await proofs.of(ready)) ?? (await proofs.measure(ready))
    if (proof.readiness === 'will-fail' && failing === 'refuse') return 'will-fail'
    const kept = await keptFiles(ready, finishes)
    await database.writeAside(async (manager) => {
      const [codeId, staticCodeId] = ready.kind === 'code' ? [row.id, null] : [null, row.id]
      const which = codeId === null ? { staticCodeId: row.id } : { codeId }
      const before = await manager.maximum(tables.releases, 'number', which)
      const { domainId, slug } = ready.kind === 'code' ? ready.row : { domainId: 0, slug: '' }
      const { name, level, sizeMm, printRun } = row
      await manager.insert(tables.releases, {
        ...of,
        codeId,
        staticCodeId,
        number: (before ?? 0) + 1,
        at: Date.now(),
        name,
        text: piece.text,
        domainId,
        slug,
        link: piece.link,
        level,
        sizeMm,
        styleName: style?.name ?? '',
        // TypeORM wants to know the parts of values it only writes as JSON.
        look: piece.look as never,
        placement: piece.placement as never,
        printRun,
        printer,
        note,
        proof: proof as never,
        files: kept as never,
      })
    })
    return 'released'
  }

  jobs.define({
    kind: 'release',
    atOnce: 1,
    tries: 3,
    async run({ id, payload, workspaceId, campaignId, personId }, { progress }) {
      const order = payload as ReleaseOrder
      const keepRoom = roomKeeper(store.incoming)
      // An office that stopped in the middle left some of them released: they are not released twice.
      const done = new Set((await read.findBy(tables.releases, { jobId: id })).map(nameOfReleased))
      const chosen = { ids: order.ids, staticIds: order.staticIds ?? [] }
      let n = 0
      const failing: string[] = []
      const tell = () => {
        live.tell(workspaceId, { type: 'change', of: 'campaign', id: campaignId ?? 0 })
      }
      for await (const ready of pieces.each(workspaceId, chosen)) {
        try {
          progress(n++, chosenCount(chosen))
        } catch {
          tell()
          throw new JobCancelled(
            `It was cancelled; ${quantity(done.size, 'piece')} ${done.size === 1 ? 'was' : 'were'} released by then and stay so.`,
          )
        }
        const called = `${ready.kind} ${String(ready.row.id)}`
        if (done.has(called)) continue
        keepRoom()
        const of = { workspaceId, campaignId: ready.row.campaignId, personId: personId ?? 0, jobId: id }
        if ((await release(ready, order, of)) === 'released') done.add(called)
        else failing.push(ready.row.name)
      }
      tell()
      const left =
        failing.length === 0
          ? ''
          : ` Left out, because ${failing.length === 1 ? 'it' : 'they'} will fail: ${failing.slice(0, NAMED_MAX).join(', ')}${failing.length > NAMED_MAX ? ` and ${String(failing.length - NAMED_MAX)} more` : ''}.`
      return { sentence: `${quantity(done.size, 'piece')} released.${left}` }
    },
  })

  return {
    async of(which: { codeId: number } | { staticCodeId: number }): Promise<Release[]> {
      const rows = await read.find(tables.releases, { where: which, order: { number: 'desc' } })
      const nameOf = await peopleNames(
        read,
        rows.map(({ personId }) => personId),
      )
      return rows.map(
        ({
          personId,
          workspaceId: _w,
          campaignId: _c,
          codeId: _code,
          staticCodeId: _static,
          jobId: _j,
          domainId: _d,
          slug: _s,
          ...row
        }) => ({
          ...row,
          by: nameOf(personId),
        }),
      )
    },
    async send(id: number, sum: string, response: Response): Promise<void> {
      const { files: kept } = await read.findOneByOrFail(tables.releases, { id })
      const file = kept.find((each) => each.sum === sum)
      const opened = file && (await store.open(sum).catch(() => null))
      if (!file || !opened)
        throw new Refusal('missing', 'This file is not among those of the release. Load the list again.')
      attach(response, file.type, file.name)
      response.set({
        'Content-Length': String(opened.bytes),
        'Cache-Control': 'private, max-age=31536000, immutable',
      })
      // Whoever leaves in the middle is no fault of ours.
      await pipeline(opened.stream, response).catch(() => undefined)
    },
    /** Clears what an earlier process left half done. */
    async tidy(): Promise<void> {
      const rows = await read.find(tables.releases, { select: { id: true, files: true } })
      const known = new Set(rows.flatMap(({ files: kept }) => kept.map(({ sum }) => sum)))
      await store.tidy((sum) => known.has(sum))
    },
  }
}

/** By what a job knows what it released already. */
const nameOfReleased = ({ codeId, staticCodeId }: ReleaseRow) =>
  codeId === null ? `static ${String(staticCodeId)}` : `code ${String(codeId)}`
