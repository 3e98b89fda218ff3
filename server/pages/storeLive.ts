import type { EntityManager } from 'typeorm'
import type { PageContent } from '@flimbo/core/pages'
import { tables, type PageRow, type RouteRow, type Turns } from '../database/index.ts'
import { storeChange, type By } from '../routing/index.ts'
import { insertRevision } from './insertLive.ts'
import { mapsOf } from './maps.ts'
import { summaryOf } from './summary.ts'

/** Stores what a page shows from now on, as a revision of it and of every route that leads to it. */
export async function storeLive(
  manager: EntityManager,
  turns: Turns,
  row: PageRow,
  routes: readonly RouteRow[],
  content: PageContent,
  { personId, at }: By,
): Promise<void> {
  const { id } = row
  await storeChange(
    manager,
    routes,
    async () => {
      const number = 1 + (await manager.countBy(tables.pageRevisions, { pageId: id }))
      const revisionId = await insertRevision(manager, id, number, content, { personId, at })
      await manager.update(
        tables.pages,
        { id },
        {
          live: content,
          maps: mapsOf(content),
          revisionId,
          draft: null,
          draftVersion: row.draftVersion + 1,
          version: row.version + 1,
          changedAt: at,
          ...summaryOf(content, null),
        },
      )
    },
    { personId, at },
    turns,
  )
}
