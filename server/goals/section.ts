import { DEFAULT_SITE, siteSettings, type SiteSettings } from '@flimbo/core/goals'
import type { Section } from '../workspace/index.ts'

/** What a workspace decides of its sites, as a section of its settings. */
export const GOAL_SITE: Section<SiteSettings> = {
  name: 'goalSite',
  schema: siteSettings,
  fallback: DEFAULT_SITE,
}
