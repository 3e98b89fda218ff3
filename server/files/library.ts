import { randomUUID } from 'node:crypto'
import { rm } from 'node:fs/promises'
import type { IncomingMessage } from 'node:http'
import { join } from 'node:path'
import { Like } from 'typeorm'
import { FILE_BYTES_MAX, type FileUse, type StoredFile } from '@flimbo/core/files'
import { missing, Refusal } from '../api/index.ts'
import { findAmong, insertedId, tables, type Database, type FileRow } from '../database/index.ts'
import { queue } from '../threads/index.ts'
import { roomKeeper } from './diskRoom.ts'
import { cleanPicture } from './picture.ts'
import { receive } from './receive.ts'
import { blobStore } from './blobs.ts'

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

const inMb = (bytes: number) => `${(bytes / MB).toFixed(bytes < 10 * MB ? 1 : 0)} MB`

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

  async function viewed(workspaceId: number, rows: readonly FileRow[]): Promise<StoredFile[]> {
    const people = await findAmong(
      read,
      tables.people,
      'id',
      rows.map(({ personId }) => personId),
    )
    const names = new Map(people.map(({ id, name }) => [id, name]))
    const uses = await usesOf(workspaceId)
    return rows.map(({ personId, workspaceId: _workspace, id: _id, ...row }) => ({
      ...row,
      by: names.get(personId) ?? 'someone who left',
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

  async function keep(workspaceId: number, personId: number, name: string, file: string): Promise<FileRow> {
    const { type, width, height, bytes, preview } = await cleanPicture(file)
    await checkQuota(workspaceId, bytes.length + preview.length)
    const sum = await store.keep(bytes, { [PREVIEW]: preview })
    return database.write(async (manager) => {
      const there = await manager.findOneBy(tables.files, { workspaceId, sum })
      if (there) return there
      const row = {
        workspaceId,
        sum,
        name,
        type,
        bytes: bytes.length + preview.length,
        width,
        height,
        personId,
        createdAt: Date.now(),
      }
      return { ...row, id: insertedId(await manager.insert(tables.files, row)) }
    })
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
      { search = '', sort, order, page, pageSize }: ListQuery,
    ): Promise<{ rows: StoredFile[]; total: number }> {
      const [rows, total] = await read.findAndCount(tables.files, {
        where: {
          workspaceId,
          ...(search === '' ? {} : { name: Like(`%${search.replace(/[%_]/g, '_')}%`) }),
        },
        order: { [sort]: order, id: order },
        skip: page * pageSize,
        take: pageSize,
      })
      return { rows: await viewed(workspaceId, rows), total }
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
      if (incoming >= INCOMING_MAX)
        throw new Refusal('tooMany', 'Many files are being uploaded at this moment. Try again in a minute.')
      await checkQuota(workspaceId, Number(request.headers['content-length'] ?? 0))
      const file = join(store.incoming, randomUUID())
      incoming++
      try {
        const keepRoom = roomKeeper(store.incoming)
        keepRoom()
        await receive(request, file, FILE_BYTES_MAX, keepRoom)
        return await viewOf(await turns.run(() => keep(workspaceId, personId, name, file)))
      } finally {
        incoming--
        await rm(file, { force: true })
      }
    },
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
        if (!(await read.existsBy(tables.files, { sum }))) await store.remove(sum, PREVIEW)
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
  readonly sort: 'createdAt' | 'name' | 'bytes'
  readonly order: 'asc' | 'desc'
  readonly page: number
  readonly pageSize: number
}
