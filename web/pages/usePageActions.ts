import { pagesApi, type Page } from '@flimbo/core/pages'
import { faultsIn, sentenceOf, useChange } from '../api/index.ts'
import type { PageDraft } from './usePageDraft.ts'

/** What is done with a page as a whole, and what was wrong with it. */
export function usePageActions(
  page: Page,
  state: PageDraft,
  choosePage: (id: number) => void,
  removed: () => void,
) {
  const publish = useChange(pagesApi.publish)
  const discard = useChange(pagesApi.discardDraft)
  const copy = useChange(pagesApi.copy)
  const remove = useChange(pagesApi.remove)
  const { id } = page
  const error = publish.error ?? discard.error ?? copy.error ?? remove.error
  return {
    isPublishing: publish.isPending,
    trouble: error ? sentenceOf(error, 'That could not be done. Nothing was changed.') : null,
    faults: faultsIn(error).map(({ path, message }) => {
      const dot = path.indexOf('.')
      return { partId: path.slice(0, dot), path: path.slice(dot + 1), sentence: message }
    }),
    publish: () => {
      publish.mutate({ params: { id }, body: { draftVersion: state.version } })
    },
    discard: () => {
      discard.mutate({ params: { id }, query: { draftVersion: state.version } })
    },
    copy: () => {
      copy.mutate(
        { params: { id } },
        {
          onSuccess: (made) => {
            choosePage(made.id)
          },
        },
      )
    },
    remove: () => {
      remove.mutate({ params: { id } }, { onSuccess: removed })
    },
  }
}
