import type { EntityManager } from 'typeorm'
import { isPictureType } from '@flimbo/core/files'
import type { MadeReport, ReportFile } from '@flimbo/core/reports'
import { Refusal } from '../api/index.ts'
import { tables } from '../database/index.ts'
import type { FileLibrary } from '../files/index.ts'
import type { PictureFile } from '../print/index.ts'
import { limitedThread } from '../threads/index.ts'
import type { PageOrder, ReportCalls } from './report-thread.ts'

/** A report that takes longer to be drawn is given up: its reader would not wait either. */
const LIMIT_MS = 60_000

const TOO_MUCH = () =>
  new Refusal(
    'tooLarge',
    'This report takes too long to be drawn. Take some questions out of it, or show fewer parts of each.',
  )

interface Parts {
  readonly read: EntityManager
  readonly files: Pick<FileLibrary, 'placeOf'>
}

/** Draws reports on a thread of their own, one at a time. */
export function reportDrawing({ read, files }: Parts) {
  const thread = limitedThread<ReportCalls>('report-thread', import.meta.url, LIMIT_MS)

  /** Where the logo of a report lies; null where it has none, or it was deleted. */
  async function logoOf(workspaceId: number, { look }: MadeReport): Promise<PictureFile | null> {
    const row =
      look.logo === null ? null : await read.findOneBy(tables.files, { workspaceId, sum: look.logo })
    if (!row) return null
    const { sum, type, width, height } = row
    return isPictureType(type) ? { path: files.placeOf(sum), type, width, height } : null
  }

  return {
    /** @throws Refusal where it takes too long */
    async page(workspaceId: number, made: MadeReport, order: PageOrder): Promise<string> {
      const markup = await thread.call('page', made, await logoOf(workspaceId, made), order)
      if (markup === null) throw TOO_MUCH()
      return markup
    },
    /** @throws Refusal where it takes too long */
    async file(workspaceId: number, made: MadeReport, as: ReportFile): Promise<Uint8Array> {
      const bytes = await thread.call('file', made, as, await logoOf(workspaceId, made))
      if (bytes === null) throw TOO_MUCH()
      return bytes
    },
    close: () => thread.close(),
  }
}
export type ReportDrawing = ReturnType<typeof reportDrawing>

/** Media types of what reports are handed on as. */
export const FILE_TYPES: Readonly<Record<ReportFile, string>> = {
  pdf: 'application/pdf',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  csv: 'application/zip',
  json: 'application/json; charset=utf-8',
}
/** What their names end in. */
export const FILE_ENDINGS: Readonly<Record<ReportFile, string>> = {
  pdf: 'pdf',
  xlsx: 'xlsx',
  csv: 'zip',
  json: 'json',
}
