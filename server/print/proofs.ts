import { contentOf } from '@flimbo/core/codes'
import { writeContent } from '@flimbo/core/contents'
import { PROOFS_MAX } from '@flimbo/core/print'
import { PLAIN_LOOK, printStateOf, type PieceProof, type PrintState } from '@flimbo/core/symbol'
import { Refusal } from '../api/index.ts'
import {
  findAmong,
  tables,
  type CodeRow,
  type Database,
  type ProofRow,
  type StaticCodeRow,
} from '../database/index.ts'
import type { Domains } from '../domains/index.ts'
import { JobCancelled, type Jobs } from '../jobs/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { LimitedThread } from '../threads/index.ts'
import type { PrintPiece } from './draw.ts'
import { chosenCount, keyOf, staticKeyOf, type Chosen, type PieceMaker, type ReadyPiece } from './pieces.ts'
import { markOf, newestReleases } from './released.ts'
import type { ProofCalls } from './proof-thread.ts'

interface Parts {
  readonly database: Database
  readonly domains: Domains
  readonly live: LiveHub
  readonly jobs: Jobs
  readonly pieces: PieceMaker
  readonly thread: LimitedThread<ProofCalls>
}

/** So many runs of a workspace wait or go on at one time. */
const RUNS_MAX = 3

/** What lists say of pieces: whether they will read, as far as that was measured. */
export async function printStatesOf(
  { database: { read }, domains }: Pick<Parts, 'database' | 'domains'>,
  rows: readonly CodeRow[],
): Promise<(row: CodeRow) => PrintState> {
  const styles = new Map(
    (
      await findAmong(
        read,
        tables.houseStyles,
        'id',
        rows.flatMap(({ styleId }) => (styleId === null ? [] : [styleId])),
      )
    ).map((style) => [style.id, style]),
  )
  const proofs = new Map(
    (
      await findAmong(
        read,
        tables.proofs,
        'codeId',
        rows.map(({ id }) => id),
      )
    ).map((proof) => [proof.codeId, proof]),
  )
  const released = await newestReleases(
    read,
    'codeId',
    rows.map(({ id }) => id),
  )
  return (row) => {
    const style = row.styleId === null ? null : (styles.get(row.styleId) ?? null)
    const text = contentOf({ origin: domains.origin(row.domainId), slug: row.slug })
    const { level, sizeMm, placement } = row
    return {
      ...printStateOf(proofs.get(row.id), keyOf(row, style, domains)),
      release: markOf(released.get(row.id), {
        text,
        level,
        sizeMm,
        look: style?.look ?? PLAIN_LOOK,
        placement,
      }),
    }
  }
}

/** The same of static codes. */
export async function staticPrintStatesOf(
  read: Database['read'],
  rows: readonly StaticCodeRow[],
): Promise<(row: StaticCodeRow) => { readonly print: PrintState; readonly styleName: string }> {
  const styleIds = rows.flatMap(({ styleId }) => (styleId === null ? [] : [styleId]))
  const styles = new Map(
    (await findAmong(read, tables.houseStyles, 'id', styleIds)).map((style) => [style.id, style]),
  )
  const released = await newestReleases(
    read,
    'staticCodeId',
    rows.map(({ id }) => id),
  )
  return (row) => {
    const style = row.styleId === null ? null : (styles.get(row.styleId) ?? null)
    const { proof, proofKey: key, level, sizeMm } = row
    return {
      styleName: style?.name ?? '',
      print: {
        ...printStateOf(proof ? { key, proof } : undefined, staticKeyOf(row, style)),
        release: markOf(released.get(row.id), {
          text: writeContent(row.content),
          level,
          sizeMm,
          look: style?.look ?? PLAIN_LOOK,
          placement: null,
        }),
      },
    }
  }
}

/** Measures a piece; one that cannot be drawn at all will fail. */
export async function measured(
  thread: LimitedThread<ProofCalls>,
  piece: PrintPiece,
  viewingM: number | null,
): Promise<PieceProof> {
  const found = await thread.call('measure', piece, viewingM)
  return {
    ...(found ?? {
      readiness: 'will-fail',
      grade: 'F',
      sentences: ['It takes too long or too much memory to be drawn. Choose a simpler look.'],
      limits: [],
    }),
    at: Date.now(),
  }
}

/** Measures pieces and keeps what was measured, until they are other ones. */
export function proofing({ database, live, jobs, pieces, thread }: Parts) {
  const { read } = database

  async function stored({ kind, row, key }: ReadyPiece): Promise<PieceProof | null> {
    if (kind === 'static') return row.proofKey === key ? row.proof : null
    return (await read.findOneBy(tables.proofs, { codeId: row.id, key }))?.proof ?? null
  }

  // A piece may be changed while it is measured: what was measured is then of what it was, and says so by its key.
  async function measure({ kind, row, piece, key }: ReadyPiece): Promise<PieceProof> {
    const proof = await measured(thread, piece, row.viewingM)
    const { id } = row
    await database.writeAside(async (manager) => {
      if (kind === 'static') await manager.update(tables.staticCodes, { id }, { proofKey: key, proof })
      else {
        const written: ProofRow = { codeId: id, key, readiness: proof.readiness, proof }
        await manager.upsert(tables.proofs, written, ['codeId'])
      }
    })
    return proof
  }

  jobs.define({
    kind: 'proof',
    atOnce: 1,
    tries: 3,
    async run({ payload, workspaceId, campaignId }, { progress }) {
      // What an earlier version stored names no static codes.
      const { ids, staticIds = [] } = payload as { ids: number[]; staticIds?: number[] }
      const chosen = { ids, staticIds }
      let done = 0
      const counts = { ready: 0, 'look-again': 0, 'will-fail': 0 }
      const told = () => {
        live.tell(workspaceId, { type: 'change', of: 'campaign', id: campaignId ?? 0 })
      }
      for await (const ready of pieces.each(workspaceId, chosen)) {
        try {
          progress(done++, chosenCount(chosen))
        } catch {
          told()
          throw new JobCancelled('It was cancelled; what was measured by then is kept.')
        }
        const proof = (await stored(ready)) ?? (await measure(ready))
        counts[proof.readiness]++
      }
      told()
      return {
        sentence: `${String(counts.ready)} ready, ${String(counts['look-again'])} to be looked at again, ${String(counts['will-fail'])} will fail.`,
      }
    },
  })

  return {
    /** What was measured of a piece as it is. */
    of: stored,
    measure,
    /** Has pieces measured. @throws Refusal */
    async run(
      chosen: Chosen,
      of: { workspaceId: number; personId: number; campaignId: number; title: string },
    ) {
      if (chosenCount(chosen) === 0) throw new Refusal('invalid', 'There is no piece to check.')
      if (chosenCount(chosen) > PROOFS_MAX)
        throw new Refusal(
          'tooLarge',
          `At most ${PROOFS_MAX.toLocaleString('en')} pieces are checked at once. Choose some of them.`,
        )
      if ((await jobs.active(of.workspaceId, 'proof')).length >= RUNS_MAX)
        throw new Refusal(
          'taken',
          'Pieces are being checked already. Wait for that, or cancel it under Jobs.',
        )
      return jobs.add({ ...of, kind: 'proof', payload: chosen })
    },
  }
}
export type Proofing = ReturnType<typeof proofing>
