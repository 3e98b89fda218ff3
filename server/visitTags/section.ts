import type { EntityManager } from 'typeorm'
import { NO_TAGS, visitTagSettings, type VisitTagSettings } from '@flimbo/core/visitTags'
import { readSetting, type Section } from '../workspace/index.ts'

/** The visit tags of a workspace, as a section of its settings. */
export const VISIT_TAGS: Section<VisitTagSettings> = {
  name: 'visitTags',
  schema: visitTagSettings,
  fallback: NO_TAGS,
}

/** Reads the visit tags that a workspace defined. */
export async function tagsOf(read: EntityManager, workspaceId: number): Promise<VisitTagSettings> {
  return (await readSetting(read, workspaceId, VISIT_TAGS)).value
}
