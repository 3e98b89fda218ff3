import { EntitySchema } from 'typeorm'
import type { PictureType } from '@flimbo/core/files'
import { id, integer, real, text } from './columns.ts'

/** What was uploaded. Moments are UTC milliseconds. */

export interface FileRow {
  id: number
  workspaceId: number
  /** SHA-256 of what is kept, which is what it is called on disk. */
  sum: string
  name: string
  type: PictureType
  /** Of the file and its preview together. */
  bytes: number
  width: number
  height: number
  personId: number
  createdAt: number
}

export const files = new EntitySchema<FileRow>({
  name: 'files',
  columns: {
    id,
    workspaceId: integer,
    sum: text,
    name: text,
    type: text,
    bytes: integer,
    width: real,
    height: real,
    personId: integer,
    createdAt: integer,
  },
})
