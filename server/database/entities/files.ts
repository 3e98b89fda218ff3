import { EntitySchema } from 'typeorm'
import type { FileType } from '@flimbo/core/files'
import { id, integer, json, real, text } from './columns.ts'

/** What was uploaded. Moments are UTC milliseconds. */

export interface FileRow {
  id: number
  workspaceId: number
  /** SHA-256 of what is kept, which is what it is called on disk. */
  sum: string
  /** What its public address is made of; stays when the file is replaced. */
  key: string
  name: string
  type: FileType
  /** Of the file and of what is made of it, together. */
  bytes: number
  width: number
  height: number
  /** Widths in pixels that pages show it in; none of what is no picture. */
  widths: number[]
  personId: number
  createdAt: number
}

export const files = new EntitySchema<FileRow>({
  name: 'files',
  columns: {
    id,
    workspaceId: integer,
    sum: text,
    key: text,
    name: text,
    type: text,
    bytes: integer,
    width: real,
    height: real,
    widths: json,
    personId: integer,
    createdAt: integer,
  },
})
