import { pagesApi, type Page } from '@flimbo/core/pages'
import { useAnswer } from '../api/index.ts'

const NONE: readonly Page[] = []

/** Every page of the workspace, by name: routes may lead to any of them. */
export function usePages(): readonly Page[] {
  return useAnswer(pagesApi.list, { query: {} }).data?.rows ?? NONE
}
