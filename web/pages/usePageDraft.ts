import { fieldFaults } from '@flimbo/core/api'
import { newPage, pagesApi, type Page, type PageContent } from '@flimbo/core/pages'
import { useState } from 'react'
import { ApiProblem, newerOf, sentenceOf, useChange } from '../api/index.ts'

export type PageDraft = PageContent & { readonly name: string }

export const EMPTY_PAGE: PageDraft = { name: '', title: '', text: '', links: [] }
const partsOf = ({ name, title, text, links }: PageDraft): PageDraft => ({ name, title, text, links })

/** What is typed of a page until it is saved, what is wrong with it, and what somebody else saved meanwhile. `page` is null for a new one. */
export function usePageDraft(page: Page | null, campaignId: number, saved: (page: Page) => void) {
  const stored = page ? partsOf(page) : EMPTY_PAGE
  const [local, setLocal] = useState<{ draft: PageDraft; version: number } | null>(null)
  const [faults, setFaults] = useState<readonly { path: string; message: string }[]>([])
  const [trouble, setTrouble] = useState<string | null>(null)
  const [isOvertaken, setOvertaken] = useState(false)
  const create = useChange(pagesApi.create)
  const change = useChange(pagesApi.change)
  const draft = local?.draft ?? stored
  const isDirty = local !== null && JSON.stringify(local.draft) !== JSON.stringify(stored)
  const forget = () => {
    setLocal(null)
    setFaults([])
    setTrouble(null)
    setOvertaken(false)
  }

  async function save(version: number): Promise<void> {
    setTrouble(null)
    setOvertaken(false)
    const checked = newPage.safeParse({ ...draft, campaignId })
    setFaults(checked.success ? [] : fieldFaults(checked.error))
    if (!checked.success) return
    try {
      const next = page
        ? await change.mutateAsync({ params: { id: page.id }, body: { version, ...partsOf(checked.data) } })
        : await create.mutateAsync({ body: checked.data })
      forget()
      saved(next)
    } catch (error) {
      if (newerOf(error)) setOvertaken(true)
      else {
        setFaults(error instanceof ApiProblem ? (error.problem.fields ?? []) : [])
        setTrouble(sentenceOf(error, 'The page could not be sent. What you typed is still here.'))
      }
    }
  }

  return {
    draft,
    isDirty,
    isOvertaken,
    trouble,
    isSaving: create.isPending || change.isPending,
    faultOf: (path: string) => faults.find((each) => each.path === path)?.message,
    edit: (part: Partial<PageDraft>) => {
      setLocal({ draft: { ...draft, ...part }, version: local?.version ?? page?.version ?? 0 })
    },
    reset: forget,
    save: () => save(local?.version ?? page?.version ?? 0),
    saveOver: () => save(page?.version ?? 0),
  }
}
