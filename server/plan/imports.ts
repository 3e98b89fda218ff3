import { randomUUID } from 'node:crypto'
import {
  detectMapping,
  fileColumns,
  headingForm,
  IMPORT_LINES_MAX,
  looksLikeHeadings,
  type Encoding,
  type LineVerdict,
  type PlanImport,
  type PlanLine,
} from '@flimbo/core/plan'
import { missing, Refusal } from '../api/index.ts'
import { houseOf, slugLengthOf } from '../codes/index.ts'
import type { CampaignRow } from '../database/index.ts'
import { domainFor } from '../domains/index.ts'
import { forgetCodes, type Doors } from '../line/index.ts'
import type { LiveHub } from '../scans/index.ts'
import type { SignedIn } from '../workspace/index.ts'
import { carryOut } from './carryOut.ts'
import { readMapping, readReading, rememberMapping, rememberReading, type Detected } from './mapping.ts'
import type { SheetRead, SheetReader } from './sheets.ts'
import { planWorld, type WorldParts } from './world.ts'

export interface ImportParts extends WorldParts {
  readonly doors: Doors
  readonly live: LiveHub
  readonly sheets: SheetReader
}

type ReadSheet = Extract<SheetRead, { ok: true }>
export interface Adjustment {
  readonly encoding?: Encoding | undefined
  readonly delimiter?: string | undefined
  readonly sheet?: string | undefined
  readonly headings?: boolean | undefined
  readonly empty?: 'leave' | 'clear' | undefined
  readonly fix?: boolean | undefined
  readonly mapping?: readonly (string | null)[] | undefined
}

/** A file somebody handed in, kept in memory until it is imported or forgotten. */
interface Kept {
  readonly id: string
  readonly workspaceId: number
  readonly campaign: CampaignRow
  readonly fileName: string
  readonly bytes: Uint8Array
  table: ReadSheet
  /** What the file looked like by itself. */
  readonly detected: Detected
  headings: boolean
  mapping: (string | null)[]
  empty: 'leave' | 'clear'
  fix: boolean
  lines: PlanLine[]
  counts: PlanImport['counts']
  /** The edition of the workspace the lines were judged in; under another they are judged anew before anything is done. */
  edition: number
  stage: PlanImport['stage']
  done: number
  total: number
  sentence: string
  cancelled: boolean
  touched: number
}

const KEPT_MS = 60 * 60_000
const KEPT_MAX = 20
const SAMPLED = 3

class Cancelled extends Error {
  override readonly name = 'Cancelled'
}

/** Files on their way into a plan. */
export function planImports(parts: ImportParts) {
  const { database, doors, live, tagging, sheets } = parts
  const kept = new Map<string, Kept>()

  function tidy(): void {
    const running = ({ stage }: Kept) => stage === 'running'
    for (const each of kept.values())
      if (!running(each) && Date.now() - each.touched > KEPT_MS) kept.delete(each.id)
    for (const each of kept.values()) if (kept.size > KEPT_MAX && !running(each)) kept.delete(each.id)
  }

  function keptOf(who: SignedIn, id: string): Kept {
    const found = kept.get(id)
    if (!found || found.workspaceId !== who.workspace.id)
      throw missing('file: it was put away after an hour, or the server was started anew. Hand it in again')
    found.touched = Date.now()
    return found
  }

  const rowsOf = ({ table, headings }: Kept) => (headings ? table.rows.slice(1) : table.rows)

  async function look(file: Kept): Promise<void> {
    const rows = rowsOf(file)
    if (rows.length > IMPORT_LINES_MAX)
      throw new Refusal(
        'tooLarge',
        `The file has ${rows.length.toLocaleString('en-GB')} lines; ${IMPORT_LINES_MAX.toLocaleString('en-GB')} go at once. Split it.`,
      )
    const edition = live.edition(file.workspaceId)
    const domainId = await domainFor(database.read, file.campaign)
    const world = await planWorld(parts, file.campaign, domainId, rows, file.mapping)
    const judged = await sheets.judge({
      rows,
      mapping: file.mapping,
      world,
      options: { empty: file.empty, guarded: file.table.kind === 'text', fix: file.fix },
    })
    if (!judged.ok) throw new Refusal('invalid', judged.sentence)
    const { lines } = judged
    const count = (verdict: LineVerdict) => lines.filter((line) => line.verdict === verdict).length
    Object.assign(file, {
      lines,
      edition,
      counts: {
        create: count('create'),
        change: count('change'),
        same: count('same'),
        refuse: count('refuse'),
        warned: lines.filter(({ verdict, findings }) => verdict !== 'refuse' && findings.length > 0).length,
      },
    })
  }

  async function columnsOf(workspaceId: number) {
    return fileColumns((await tagging.rulesOf(workspaceId)).parameters)
  }

  async function mapped(file: Kept): Promise<void> {
    const width = Math.max(0, ...file.table.rows.slice(0, 100).map((row) => row.length))
    const first = file.headings ? (file.table.rows[0] ?? []) : []
    const headings = Array.from({ length: width }, (_, i) => first[i] ?? '')
    file.mapping = detectMapping(
      headings,
      await columnsOf(file.workspaceId),
      await readMapping(database.read, file.workspaceId),
    )
  }

  function view(file: Kept): PlanImport {
    const rows = rowsOf(file)
    const first = file.headings ? (file.table.rows[0] ?? []) : []
    return {
      id: file.id,
      campaignId: file.campaign.id,
      fileName: file.fileName,
      kind: file.table.kind,
      encoding: file.table.encoding,
      delimiter: file.table.delimiter,
      sheets: file.table.sheets,
      sheet: file.table.sheet,
      headings: file.headings,
      empty: file.empty,
      fix: file.fix,
      columns: file.mapping.map((to, i) => ({
        heading: first[i] ?? '',
        sample: rows.slice(0, SAMPLED).map((row) => (row[i] ?? '').slice(0, 80)),
        to,
      })),
      stage: file.stage,
      done: file.done,
      total: file.total,
      sentence: file.sentence,
      counts: file.counts,
    }
  }

  async function tableOf(
    bytes: Uint8Array,
    wishes: Pick<Adjustment, 'encoding' | 'delimiter' | 'sheet'>,
  ): Promise<ReadSheet> {
    const read = await sheets.read({ bytes, ...wishes })
    if (!read.ok) throw new Refusal('invalid', read.sentence)
    if (read.rows.length === 0)
      throw new Refusal(
        'invalid',
        'There is nothing in this file. Hand in one with a heading and at least one line.',
      )
    return read
  }

  async function work(file: Kept, who: SignedIn, good: boolean): Promise<void> {
    if (live.edition(file.workspaceId) !== file.edition) await look(file)
    const refused = file.counts.refuse
    if (refused > 0 && !good)
      throw new Refusal(
        'invalid',
        `${String(refused)} ${refused === 1 ? 'line is' : 'lines are'} refused, so nothing was imported. Correct the file, or import the good lines only.`,
      )
    // Two imports may end at once; that only one of them is remembered does no harm.
    await rememberMapping(
      database,
      file.workspaceId,
      Object.fromEntries(
        file.headings
          ? (file.table.rows[0] ?? []).flatMap((heading, i) =>
              heading.trim() === '' ? [] : [[headingForm(heading), file.mapping[i] ?? null]],
            )
          : [],
      ),
    ).catch(() => undefined)
    if (file.table.kind === 'text')
      await rememberReading(database, file.workspaceId, file.detected, file.table).catch(() => undefined)
    const house = await houseOf(parts, file.workspaceId)
    const domainId = await domainFor(database.read, file.campaign)
    const slugLength = await slugLengthOf(database, file.workspaceId)
    const ids = await database.writeInTurns((manager, turns) =>
      carryOut(manager, {
        lines: file.lines,
        campaign: file.campaign,
        domainId,
        house,
        slugLength,
        by: { personId: who.person.id, at: Date.now() },
        pace: {
          turns,
          done(pieces) {
            file.done = pieces
            if (file.cancelled) throw new Cancelled()
          },
        },
      }),
    )
    await forgetCodes(database, doors, ids)
    live.tell(file.workspaceId, { type: 'change', of: 'code', id: ids[0] ?? 0 })
  }

  return {
    async begin(
      who: SignedIn,
      campaign: CampaignRow,
      fileName: string,
      bytes: Uint8Array,
    ): Promise<PlanImport> {
      tidy()
      const detected = await tableOf(bytes, {})
      const { encodings, delimiters } = await readReading(database.read, who.workspace.id)
      // What begins with a byte order mark, or is UTF-8 throughout, is no guess that could be wrong.
      const encoding = detected.encoding === 'windows-1252' ? encodings[detected.encoding] : undefined
      const delimiter = delimiters[detected.delimiter]
      const table =
        detected.kind === 'text' && (encoding !== undefined || delimiter !== undefined)
          ? await tableOf(bytes, { encoding, delimiter })
          : detected
      const file: Kept = {
        id: randomUUID(),
        workspaceId: who.workspace.id,
        campaign,
        fileName,
        bytes,
        table,
        detected,
        headings: looksLikeHeadings(table.rows[0] ?? [], await columnsOf(who.workspace.id)),
        mapping: [],
        empty: 'leave',
        fix: false,
        lines: [],
        counts: { create: 0, change: 0, same: 0, refuse: 0, warned: 0 },
        edition: -1,
        stage: 'ready',
        done: 0,
        total: 0,
        sentence: '',
        cancelled: false,
        touched: Date.now(),
      }
      await mapped(file)
      await look(file)
      kept.set(file.id, file)
      return view(file)
    },

    async adjust(
      who: SignedIn,
      id: string,
      { encoding, delimiter, sheet, headings, empty, fix, mapping }: Adjustment,
    ): Promise<PlanImport> {
      const file = keptOf(who, id)
      if (file.stage === 'running' || file.stage === 'done')
        throw new Refusal(
          'taken',
          'This file is being imported or was imported already. Hand it in again to change how it is read.',
        )
      if (encoding !== undefined || delimiter !== undefined || sheet !== undefined) {
        file.table = await tableOf(file.bytes, {
          encoding: encoding ?? file.table.encoding,
          delimiter:
            delimiter ?? (sheet === undefined && encoding === undefined ? file.table.delimiter : undefined),
          sheet: sheet ?? file.table.sheet,
        })
        if (mapping === undefined) await mapped(file)
      }
      if (headings !== undefined && headings !== file.headings) {
        file.headings = headings
        if (mapping === undefined && headings) await mapped(file)
      }
      if (empty !== undefined) file.empty = empty
      if (fix !== undefined) file.fix = fix
      if (mapping !== undefined) {
        const twice = mapping.find((each, i) => each !== null && mapping.indexOf(each) !== i)
        if (twice !== undefined && twice !== null)
          throw new Refusal(
            'invalid',
            'Two columns of the file stand for the same column of the plan. Leave one of them out.',
          )
        file.mapping = file.mapping.map((_, i) => mapping[i] ?? null)
      }
      Object.assign(file, { stage: 'ready', sentence: '', cancelled: false })
      await look(file)
      return view(file)
    },

    get: (who: SignedIn, id: string): PlanImport => view(keptOf(who, id)),

    lines(
      who: SignedIn,
      id: string,
      verdict: LineVerdict | 'warned' | undefined,
      page: number,
      pageSize: number,
    ) {
      const { lines } = keptOf(who, id)
      const wanted =
        verdict === undefined
          ? lines
          : lines.filter((line) =>
              verdict === 'warned'
                ? line.verdict !== 'refuse' && line.findings.length > 0
                : line.verdict === verdict,
            )
      return {
        rows: wanted.slice(page * pageSize, (page + 1) * pageSize).map(({ action: _action, ...line }) => ({
          ...line,
          why: [...line.why],
          changes: [...line.changes],
          findings: [...line.findings],
        })),
        total: wanted.length,
        page,
        pageSize,
      }
    },

    run(who: SignedIn, id: string, good: boolean): PlanImport {
      const file = keptOf(who, id)
      if (file.stage === 'running' || file.stage === 'done')
        throw new Refusal('taken', 'This file is being imported or was imported already.')
      const { create, change } = file.counts
      Object.assign(file, {
        stage: 'running',
        done: 0,
        total: create + change,
        cancelled: false,
        sentence: '',
      })
      work(file, who, good).then(
        () => {
          Object.assign(file, {
            stage: 'done',
            done: file.total,
            sentence: `${String(create)} created, ${String(change)} changed.`,
          })
        },
        (error: unknown) => {
          if (error instanceof Cancelled)
            Object.assign(file, { stage: 'cancelled', sentence: 'Stopped; nothing was imported.' })
          else
            Object.assign(file, {
              stage: 'failed',
              sentence:
                error instanceof Refusal
                  ? error.message
                  : 'Something went wrong on the server and nothing was imported. Try again.',
            })
        },
      )
      return view(file)
    },

    cancel(who: SignedIn, id: string): PlanImport {
      const file = keptOf(who, id)
      if (file.stage === 'running') file.cancelled = true
      else kept.delete(id)
      return view(file)
    },
  }
}
