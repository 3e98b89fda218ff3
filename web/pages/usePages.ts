import { pagesApi, type PageSummary } from '@flimbo/core/pages'
import { useAnswer } from '../api/index.ts'

const NONE: readonly PageSummary[] = []

/** Every page of the workspace, by name: routes may lead to any of them. */
export function usePages(): readonly PageSummary[] {
  return useAnswer(pagesApi.list, { query: {} }).data?.rows ?? NONE
}
