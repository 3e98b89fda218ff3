import type { EntityManager } from 'typeorm'
import type { PageContent } from '@flimbo/core/pages'
import { insertedId, tables } from '../database/index.ts'
import type { By } from '../routing/index.ts'
import { mapsOf } from './maps.ts'
import { summaryOf } from './summary.ts'

/** Stores what a page shows as a revision of it. @returns the revision’s number in its table, which the page is to name */
export async function insertRevision(
  manager: EntityManager,
  pageId: number,
  number: number,
  content: PageContent,
  { at, personId }: By,
): Promise<number> {
  return insertedId(
    await manager.insert(tables.pageRevisions, { pageId, number, at, personId, content: content as never }),
  )
}

/** Makes what a page was stored with its first revision. */
export async function beginRevisions(
  manager: EntityManager,
  pageId: number,
  content: PageContent,
  by: By,
): Promise<void> {
  const revisionId = await insertRevision(manager, pageId, 1, content, by)
  await manager.update(tables.pages, { id: pageId }, { revisionId })
}

/** Stores a page that is live from the start. @returns its number */
export async function insertLivePage(
  manager: EntityManager,
  campaignId: number,
  name: string,
  content: PageContent,
  by: By,
): Promise<number> {
  const id = insertedId(
    await manager.insert(tables.pages, {
      campaignId,
      name,
      maps: mapsOf(content),
      ...summaryOf(content, null),
      live: content as never,
      revisionId: 0,
      draft: null,
      draftVersion: 0,
      version: 1,
      createdAt: by.at,
      changedAt: by.at,
    }),
  )
  await beginRevisions(manager, id, content, by)
  return id
}
