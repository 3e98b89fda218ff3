import { said } from '@flimbo/core/fields'
import { filesOfPage, pagesOfPage, type PageContent } from '@flimbo/core/pages'
import type { PageRow } from '../database/index.ts'

/**
 * What lists, searches and deletions know of a page, so that they need not read what it shows: by thousands of pages that
 * would be long.
 *
 * @param shown what is prepared, or else live
 * @param live what is live beside it; null where nothing is
 */
export function summaryOf(shown: PageContent, live: PageContent | null): Pick<PageRow, 'title' | 'summary'> {
  const { languages, parts } = shown
  const language = languages[0] ?? 'en'
  const both = live === null ? [shown] : [shown, live]
  const styles = both.flatMap(({ styleId }) => (styleId === null ? [] : [styleId]))
  return {
    title: said({ language, languages }, shown.title).text,
    summary: {
      parts: parts.length,
      languages,
      styles: [...new Set(styles)],
      files: [...new Set(both.flatMap(filesOfPage))],
      pages: [...new Set(both.flatMap(pagesOfPage))],
    },
  }
}
