import { fieldFaults } from '@flimbo/core/api'
import { newPage, pagesApi, type Page, type PageContent } from '@flimbo/core/pages'
import { useState } from 'react'
import { ApiProblem, sentenceOf, useChange, useVersion } from '../api/index.ts'

export type PageDraft = PageContent & { readonly name: string }

export const EMPTY_PAGE: PageDraft = { name: '', title: '', text: '', links: [] }
const partsOf = ({ name, title, text, links }: PageDraft): PageDraft => ({ name, title, text, links })

/** What is typed of a page until it is saved, what is wrong with it, and what somebody else saved meanwhile. `page` is null for a new one. */
export function usePageDraft(page: Page | null, campaignId: number, saved: (page: Page) => void) {
  const stored = page ? partsOf(page) : EMPTY_PAGE
  const [local, setLocal] = useState<PageDraft | null>(null)
  const [faults, setFaults] = useState<readonly { path: string; message: string }[]>([])
  const [trouble, setTrouble] = useState<string | null>(null)
  const create = useChange(pagesApi.create)
  const change = useChange(pagesApi.change)
  const draft = local ?? stored
  const version = useVersion<Page>(page?.version ?? 0, local !== null)
  const forget = () => {
    setLocal(null)
    setFaults([])
    setTrouble(null)
    version.rebase()
  }

  async function save(): Promise<void> {
    setTrouble(null)
    const checked = newPage.safeParse({ ...draft, campaignId })
    setFaults(checked.success ? [] : fieldFaults(checked.error))
    if (!checked.success) return
    try {
      const next = await version.save((from) =>
        page
          ? change.mutateAsync({
              params: { id: page.id },
              body: { version: from, ...partsOf(checked.data) },
            })
          : create.mutateAsync({ body: checked.data }),
      )
      if (next === null) return
      forget()
      saved(next)
    } catch (error) {
      setFaults(error instanceof ApiProblem ? (error.problem.fields ?? []) : [])
      setTrouble(sentenceOf(error, 'The page could not be sent. What you typed is still here.'))
    }
  }

  return {
    draft,
    isDirty: local !== null,
    isOvertaken: version.newer !== null,
    trouble,
    isSaving: create.isPending || change.isPending,
    faultOf: (path: string) => faults.find((each) => each.path === path)?.message,
    edit: (part: Partial<PageDraft>) => {
      // What is typed back to what is stored is no edit.
      const next = { ...draft, ...part }
      setLocal(JSON.stringify(next) === JSON.stringify(stored) ? null : next)
    },
    reset: forget,
    save,
    overwrite: () => {
      version.rebase()
      return save()
    },
  }
}
