import { pipeline } from 'node:stream/promises'
import { filesApi, isPictureType } from '@flimbo/core/files'
import { attach, missing, mount, type Mounts } from '../api/index.ts'
import type { Doors } from '../line/index.ts'
import type { LiveHub } from '../scans/index.ts'
import { INERT_POLICY } from './inert.ts'
import type { FileLibrary } from './library.ts'

/** What a file is may be kept by whoever asked: under its sum it is never another. */
const KEPT = 'private, max-age=31536000, immutable'

/** The endpoints of files, as `core`’s contract describes them. */
export function filesEndpoints(
  mounts: Mounts,
  { files, doors, live }: { files: FileLibrary; doors: Doors; live: Pick<LiveHub, 'tell'> },
): void {
  mount(mounts, filesApi.list, async ({ query, who }) => {
    const workspaceId = who.workspace.id
    return {
      ...(await files.list(workspaceId, query)),
      page: query.page,
      pageSize: query.pageSize,
      usedBytes: await files.usedBytes(workspaceId),
      quotaBytes: files.quotaBytes,
    }
  })

  mount(mounts, filesApi.upload, ({ query: { name }, who, request }) =>
    files.upload(who.workspace.id, who.person.id, name, request),
  )

  mount(mounts, filesApi.replace, async ({ params: { sum }, query: { name }, who, request }) => {
    const file = await files.replace(who.workspace.id, sum, name, request)
    await doors.forget({ what: 'pages' })
    live.tell(who.workspace.id, { type: 'change', of: 'page', id: 0 })
    return file
  })

  mount(mounts, filesApi.get, async ({ params: { sum }, who }) =>
    files.viewOf(await files.find(who.workspace.id, sum)),
  )

  mount(mounts, filesApi.content, async ({ params: { sum }, query, who, response }) => {
    const { name, type } = await files.find(who.workspace.id, sum)
    const isPreview = query.preview === 'yes' && isPictureType(type)
    const { stream, bytes } = await files.open(sum, isPreview).catch(() => {
      throw missing('file')
    })
    attach(response, isPreview ? 'image/webp' : type, isPreview ? `${name}.webp` : name)
    response.set({
      'Cache-Control': KEPT,
      'Content-Length': String(bytes),
      'Content-Security-Policy': INERT_POLICY,
      'X-Content-Type-Options': 'nosniff',
    })
    // Whoever leaves in the middle is no fault of ours.
    await pipeline(stream, response).catch(() => undefined)
  })

  mount(mounts, filesApi.remove, async ({ params: { sum }, who }) => {
    await files.remove(who.workspace.id, sum)
  })
}
