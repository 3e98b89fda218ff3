import { In } from 'typeorm'
import { tables, type Database } from '../database/index.ts'
import type { Doors } from './orders.ts'

/** With more codes than this it is quicker to forget everything than to look their short links up. */
const NAMED_MAX = 500

/** Makes the next scan of these codes see what is stored now, by whichever of their short links it comes, and on whichever route. */
export async function forgetCodes(
  { read }: Pick<Database, 'read'>,
  doors: Doors,
  codeIds: readonly number[],
): Promise<void> {
  if (codeIds.length === 0) return
  if (codeIds.length > NAMED_MAX) {
    await doors.forget({ what: 'all' })
    return
  }
  const [links, codes] = await Promise.all([
    read.findBy(tables.shortLinks, { codeId: In([...codeIds]) }),
    read.find(tables.codes, { select: { routeId: true }, where: { id: In([...codeIds]) } }),
  ])
  await doors.forget({
    what: 'codes',
    links: links.map(({ domainId, slug }) => ({ domainId, slug })),
    routeIds: [...new Set(codes.map(({ routeId }) => routeId))],
  })
}
