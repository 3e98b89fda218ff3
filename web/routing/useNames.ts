import type { Names } from '@flimbo/core/routing'
import { visitTagsApi } from '@flimbo/core/visitTags'
import { useAnswer } from '../api/index.ts'
import { usePages } from '../pages/index.ts'

/** What rules know by number or key, by its name; `route` knows those of other routes that are at hand. */
export function useNames(route: (id: number) => string | undefined = () => undefined): Names {
  const pages = usePages()
  const tags = useAnswer(visitTagsApi.settings, {}).data?.value.tags ?? []
  return {
    route: (id) => route(id) ?? 'another route',
    page: (id) => pages.find((page) => page.id === id)?.name ?? 'a page that is gone',
    tag: (id) => tags.find((tag) => tag.id === id)?.name ?? id,
  }
}
