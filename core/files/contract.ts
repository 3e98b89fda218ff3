import { z } from 'zod'
import { endpoint, pageQuery, requiredLine } from '../api/index.ts'
import { FILE_BYTES_MAX, FILE_NAME_MAX, fileSum, storedFile } from './file.ts'

const fileParams = z.strictObject({ sum: fileSum })

export const filesApi = {
  list: endpoint({
    method: 'GET',
    path: '/files',
    room: 'files',
    access: { right: 'view' },
    summary: 'Uploaded files, with what uses each, and how much room they take',
    query: pageQuery(['createdAt', 'name', 'bytes'], 'createdAt').extend({
      search: z.string().max(200).optional(),
    }),
    answer: z.object({
      rows: z.array(storedFile),
      total: z.int(),
      page: z.int(),
      pageSize: z.int(),
      usedBytes: z.int(),
      quotaBytes: z.int(),
    }),
  }),
  upload: endpoint({
    method: 'POST',
    path: '/files',
    room: 'files',
    access: { right: 'edit' },
    summary:
      'Upload a picture: PNG, JPEG, WebP or SVG, by its content; one that is there already is kept once',
    query: z.strictObject({ name: requiredLine('the name of the file', FILE_NAME_MAX) }),
    takes: 'application/octet-stream',
    isStreamed: true,
    bytesMax: FILE_BYTES_MAX,
    status: 201,
    answer: storedFile,
  }),
  get: endpoint({
    method: 'GET',
    path: '/files/:sum',
    room: 'files',
    access: { right: 'view', things: { file: 'params.sum' } },
    summary: 'One uploaded file',
    params: fileParams,
    answer: storedFile,
  }),
  content: endpoint({
    method: 'GET',
    path: '/files/:sum/content',
    room: 'files',
    access: { right: 'view', things: { file: 'params.sum' } },
    summary: 'The bytes of an uploaded file, or of a small preview of it',
    params: fileParams,
    query: z.strictObject({ preview: z.enum(['yes', 'no']).default('no') }),
    answers: 'application/octet-stream',
  }),
  remove: endpoint({
    method: 'DELETE',
    path: '/files/:sum',
    room: 'files',
    access: { right: 'edit', things: { file: 'params.sum' } },
    summary: 'Delete a file that nothing uses',
    params: fileParams,
  }),
}
