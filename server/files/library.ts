import { randomBytes, randomUUID } from 'node:crypto'
import { readFile, rm } from 'node:fs/promises'
import type { IncomingMessage } from 'node:http'
import { join } from 'node:path'
import { In, Like } from 'typeorm'
import {
  FILE_BYTES_MAX,
  isPictureType,
  type FileType,
  type FileUse,
  type FileUser,
  type StoredFile,
} from '@flimbo/core/files'
import { missing, Refusal } from '../api/index.ts'
import { findAmong, insertedId, peopleNames, tables, type Database, type FileRow } from '../database/index.ts'
import { queue } from '../threads/index.ts'
import { roomKeeper } from './diskRoom.ts'
import { cleanPicture } from './picture.ts'
import { receive } from './receive.ts'
import { blobStore } from './blobs.ts'
import { kindOf, KIND_TYPES, KIND_WORDS, readMedia, type FileKind } from './media.ts'
import { pictureVariants } from './variants.ts'

/** Finds what of a room needs files of a workspace, by the file. */
export type FindUses = (workspaceId: number) => Promise<readonly { sum: string; use: FileUse }[]>

interface Parts {
  readonly database: Database
  readonly directory: string
  /** How much a workspace may keep, in bytes. */
  readonly quotaBytes: number
}

/** So many uploads of all workspaces come in at one time; whoever comes then is told to wait. */
const INCOMING_MAX = 12
const MB = 1024 * 1024
/** Follows the name of a file where its preview lies. */
const PREVIEW = '.preview.webp'
/** A public key, which nobody finds by trying: 126 bits. */
const newKey = () => randomBytes(16).toString('base64url').slice(0, 21)

const inMb = (bytes: number) => `${(bytes / MB).toFixed(bytes < 10 * MB ? 1 : 0)} MB`

/** What uses a file and shows it as it is now, so that it may be replaced. */
const PAGE_USERS: readonly FileUser[] = ['page', 'page-style']
const NO_VARIANTS = { widths: [] as number[], files: {} as Record<string, Buffer> }

/** A file that was taken in: it lies on disk, and no row names it yet. */
interface Taken {
  readonly type: FileType
  readonly width: number
  readonly height: number
  readonly widths: number[]
  readonly bytes: number
  readonly sum: string
}

/** The files that workspaces have uploaded. */
export function fileLibrary({ database, directory, quotaBytes }: Parts) {
  const { read } = database
  const store = blobStore(directory)
  const finders: FindUses[] = []
  /** Pictures are unfolded one at a time: each may take hundreds of megabytes. */
  const turns = queue()
  let incoming = 0

  async function usedBytes(workspaceId: number): Promise<number> {
    return (await read.sum(tables.files, 'bytes', { workspaceId })) ?? 0
  }

  async function usesOf(workspaceId: number): Promise<Map<string, FileUse[]>> {
    const uses = new Map<string, FileUse[]>()
    for (const find of finders)
      for (const { sum, use } of await find(workspaceId)) uses.set(sum, [...(uses.get(sum) ?? []), use])
    return uses
  }

  async function viewed(
    workspaceId: number,
    rows: readonly FileRow[],
    known?: ReadonlyMap<string, FileUse[]>,
  ): Promise<StoredFile[]> {
    const nameOf = await peopleNames(
      read,
      rows.map(({ personId }) => personId),
    )
    const uses = known ?? (await usesOf(workspaceId))
    return rows.map(({ personId, workspaceId: _workspace, id: _id, ...row }) => ({
      ...row,
      by: nameOf(personId),
      uses: uses.get(row.sum) ?? [],
    }))
  }

  async function viewOf(row: FileRow): Promise<StoredFile> {
    const [view] = await viewed(row.workspaceId, [row])
    if (!view) throw missing('file')
    return view
  }

  /** @throws Refusal where a workspace would keep more than it may */
  async function checkQuota(workspaceId: number, more: number): Promise<void> {
    const used = await usedBytes(workspaceId)
    if (used + more > quotaBytes)
      throw new Refusal(
        'tooLarge',
        `Your files take ${inMb(used)} of the ${inMb(quotaBytes)} your workspace has. Delete files that nothing uses, and upload it again.`,
      )
  }

  /** Takes in a picture, or something else that pages show. @throws Refusal */
  async function takeIn(workspaceId: number, file: string): Promise<Taken> {
    const media = await readMedia(file)
    if (media) {
      await checkQuota(workspaceId, media.bytes)
      return { ...media, width: 0, height: 0, widths: [], sum: await store.keepFile(file) }
    }
    const { type, width, height, bytes, preview } = await cleanPicture(file)
    const shown = type === 'image/svg+xml' ? NO_VARIANTS : await pictureVariants(bytes, width)
    const beside = Object.values(shown.files).reduce((sum, each) => sum + each.length, preview.length)
    await checkQuota(workspaceId, bytes.length + beside)
    const sum = await store.keep(bytes, { [PREVIEW]: preview, ...shown.files })
    return { type, width, height, widths: shown.widths, bytes: bytes.length + beside, sum }
  }

  async function keep(workspaceId: number, personId: number, name: string, file: string): Promise<FileRow> {
    const taken = await takeIn(workspaceId, file)
    return database.write(async (manager) => {
      const there = await manager.findOneBy(tables.files, { workspaceId, sum: taken.sum })
      if (there) return there
      const row = { ...taken, workspaceId, name, key: newKey(), personId, createdAt: Date.now() }
      return { ...row, id: insertedId(await manager.insert(tables.files, row)) }
    })
  }

  /** Puts a file in the place of another that pages alone use. @throws Refusal */
  async function putInPlace(row: FileRow, name: string, file: string): Promise<FileRow> {
    const { workspaceId, id } = row
    const printed = ((await usesOf(workspaceId)).get(row.sum) ?? []).find(
      ({ by }) => !PAGE_USERS.includes(by),
    )
    if (printed)
      throw new Refusal(
        'taken',
        `“${printed.name}” is printed with this file, which stays as it is. Upload the new one as a file of its own.`,
      )
    const taken = await takeIn(workspaceId, file)
    if (kindOf(taken.type) !== kindOf(row.type))
      throw new Refusal(
        'invalid',
        `“${row.name}” is ${KIND_WORDS[kindOf(row.type)]}. Upload another of the same kind, or choose the new file on the page.`,
      )
    const next = { ...row, ...taken, name }
    await database.write(async (manager) => {
      if (taken.sum !== row.sum && (await manager.existsBy(tables.files, { workspaceId, sum: taken.sum })))
        throw new Refusal('taken', 'This file is among yours already. Choose it on the page instead.')
      await manager.update(tables.files, { id }, { ...taken, name })
    })
    if (taken.sum !== row.sum && !(await read.existsBy(tables.files, { sum: row.sum })))
      await store.remove(row.sum)
    return next
  }

  /** Takes the body of a request, and does with its file what is to be done, one after the other. @throws Refusal */
  async function received<T>(
    workspaceId: number,
    request: IncomingMessage,
    work: (file: string) => Promise<T>,
  ): Promise<T> {
    if (incoming >= INCOMING_MAX)
      throw new Refusal('tooMany', 'Many files are being uploaded at this moment. Try again in a minute.')
    const said = Number(request.headers['content-length'] ?? 0)
    // What is too large for anybody is told as that; `receive` refuses it.
    if (said <= FILE_BYTES_MAX) await checkQuota(workspaceId, said)
    const file = join(store.incoming, randomUUID())
    incoming++
    try {
      const keepRoom = roomKeeper(store.incoming)
      keepRoom()
      await receive(request, file, FILE_BYTES_MAX, keepRoom)
      return await turns.run(() => work(file))
    } finally {
      incoming--
      await rm(file, { force: true })
    }
  }

  return {
    /** Where a file lies, for threads that read it. */
    placeOf: (sum: string) => store.placeOf(sum),
    /** @throws Error where there is no such file */
    open: (sum: string, isPreview: boolean) => store.open(sum, isPreview ? PREVIEW : ''),
    usedBytes,
    viewOf,
    quotaBytes,
    /** Says what of a room needs files; what it does not know of can be deleted. */
    usedBy(find: FindUses): void {
      finders.push(find)
    },
    async list(
      workspaceId: number,
      { search = '', of, sort, order, page, pageSize }: ListQuery,
    ): Promise<{ rows: StoredFile[]; total: number }> {
      const [rows, total] = await read.findAndCount(tables.files, {
        where: {
          workspaceId,
          ...(of === 'any' ? {} : { type: In([...KIND_TYPES[of]]) }),
          ...(search === '' ? {} : { name: Like(`%${search.replace(/[%_]/g, '_')}%`) }),
        },
        order: { [sort]: order, id: order },
        skip: page * pageSize,
        take: pageSize,
      })
      return { rows: await viewed(workspaceId, rows), total }
    },
    /** Files of a workspace by their public keys; what uses them is not looked for. */
    async byKeys(workspaceId: number, keys: readonly string[]): Promise<StoredFile[]> {
      const rows = await findAmong(read, tables.files, 'key', [...new Set(keys)], { workspaceId })
      return viewed(workspaceId, rows, new Map())
    },
    async find(workspaceId: number, sum: string): Promise<FileRow> {
      const row = await read.findOneBy(tables.files, { workspaceId, sum })
      if (!row) throw missing('file')
      return row
    },
    /** Keeps a picture that lies somewhere. @throws Refusal */
    take: (workspaceId: number, personId: number, name: string, file: string): Promise<FileRow> =>
      turns.run(() => keep(workspaceId, personId, name, file)),
    /** Takes in what is uploaded. @throws Refusal */
    async upload(
      workspaceId: number,
      personId: number,
      name: string,
      request: IncomingMessage,
    ): Promise<StoredFile> {
      return viewOf(await received(workspaceId, request, (file) => keep(workspaceId, personId, name, file)))
    },
    /** Puts what is uploaded in the place of a file. @throws Refusal */
    async replace(
      workspaceId: number,
      sum: string,
      name: string,
      request: IncomingMessage,
    ): Promise<StoredFile> {
      const row = await read.findOneBy(tables.files, { workspaceId, sum })
      if (!row) throw missing('file')
      return viewOf(await received(workspaceId, request, (file) => putInPlace(row, name, file)))
    },
    /** Makes what pages show of pictures that were uploaded before they did. */
    prepare: (keys: readonly string[]): Promise<void> =>
      turns.run(async () => {
        for (const { id, sum, type, width, widths, bytes } of await findAmong(
          read,
          tables.files,
          'key',
          keys,
        )) {
          if (widths.length > 0 || !isPictureType(type) || type === 'image/svg+xml') continue
          const shown = await pictureVariants(await readFile(store.placeOf(sum)), width)
          await store.keepBeside(sum, shown.files)
          const more = Object.values(shown.files).reduce((all, each) => all + each.length, 0)
          await database.write((manager) =>
            manager.update(tables.files, { id }, { widths: shown.widths, bytes: bytes + more }),
          )
        }
      }),
    /** Deletes a file of a workspace. @throws Refusal where something uses it */
    remove: (workspaceId: number, sum: string): Promise<void> =>
      // Nobody keeps the same file anew in the meantime.
      turns.run(async () => {
        await database.write(async (manager) => {
          const [use, ...more] = (await usesOf(workspaceId)).get(sum) ?? []
          if (use)
            throw new Refusal(
              'taken',
              `“${use.name}”${more.length > 0 ? ` and ${String(more.length)} more` : ''} needs this file. Choose another file there first.`,
            )
          await manager.delete(tables.files, { workspaceId, sum })
        })
        if (!(await read.existsBy(tables.files, { sum }))) await store.remove(sum)
      }),
    /** Clears what an earlier process left half done. */
    async tidy(): Promise<void> {
      const known = new Set((await read.find(tables.files, { select: { sum: true } })).map(({ sum }) => sum))
      await store.tidy((sum) => known.has(sum))
    },
    stop: () => turns.empty(),
  }
}
export type FileLibrary = ReturnType<typeof fileLibrary>

interface ListQuery {
  readonly search?: string | undefined
  readonly of: FileKind | 'any'
  readonly sort: 'createdAt' | 'name' | 'bytes'
  readonly order: 'asc' | 'desc'
  readonly page: number
  readonly pageSize: number
}
