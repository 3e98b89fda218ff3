import { pageContent, pagesApi, type Page, type PageContent } from '@flimbo/core/pages'
import { useAutosave, useChange, type Autosave } from '../api/index.ts'

export interface PageDraft extends Autosave<PageContent> {
  /** Whether something is prepared that is not live. */
  readonly isPrepared: boolean
}

const versionOf = ({ draftVersion }: Page) => draftVersion

/** Keeps what a page is to show next. `page` has a live content or a draft. */
export function usePageDraft(page: Page, stored: PageContent): PageDraft {
  const { mutateAsync } = useChange(pagesApi.saveDraft)
  const state = useAutosave<PageContent, Page>({
    stored,
    version: page.draftVersion,
    versionOf,
    send: (draftVersion, content) =>
      mutateAsync({ params: { id: page.id }, body: { draftVersion, content } }),
    faultOf(content) {
      const { error } = pageContent.safeParse(content)
      return error ? (error.issues[0]?.message ?? 'Something is missing.') : null
    },
  })
  return { ...state, isPrepared: page.draft !== null || !state.isKept }
}
