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
      /** Only pictures, or only files of some types, such as `audio`. */
      of: z.enum(['picture', 'audio', 'video', 'captions', 'document', 'any']).default('any'),
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
      'Upload a picture (PNG, JPEG, WebP, SVG), a PDF, a recording (MP3, M4A, WAV, OGG), a film (MP4, WebM) or captions (WebVTT), told by its content; what is there already is kept once',
    query: z.strictObject({ name: requiredLine('the name of the file', FILE_NAME_MAX) }),
    takes: 'application/octet-stream',
    isStreamed: true,
    bytesMax: FILE_BYTES_MAX,
    status: 201,
    answer: storedFile,
  }),
  replace: endpoint({
    method: 'POST',
    path: '/files/:sum/replace',
    room: 'files',
    access: { right: 'edit', things: { file: 'params.sum' } },
    summary: 'Put another file in the place of one that pages show: its public address stays',
    params: fileParams,
    query: z.strictObject({ name: requiredLine('the name of the file', FILE_NAME_MAX) }),
    takes: 'application/octet-stream',
    isStreamed: true,
    bytesMax: FILE_BYTES_MAX,
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
