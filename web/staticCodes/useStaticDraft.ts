import { contentCosts, contentFaults, writeContent, type Content } from '@flimbo/core/contents'
import { printApi } from '@flimbo/core/print'
import { staticCodesApi, type NewStaticCode, type StaticCode } from '@flimbo/core/staticCodes'
import equal from 'fast-deep-equal'
import { useMemo, useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { emptyContent } from './fields.ts'

/** A static code as it is drafted. */
export type StaticDraft = Required<Omit<NewStaticCode, 'campaignId' | 'content'>> & { content: Content }

function stored(code: StaticCode): StaticDraft {
  const { name, content, level, sizeMm, viewingM, place, printRun, reference, note, styleId } = code
  return { name, content, level, sizeMm, viewingM, place, printRun, reference, note, styleId }
}

/** What one begins with: a web address, the usual size. */
export function newDraft(day: string, zone: string): StaticDraft {
  return {
    name: '',
    content: emptyContent('address', day, zone),
    level: 'M',
    sizeMm: 30,
    viewingM: null,
    place: '',
    printRun: null,
    reference: '',
    note: '',
    styleId: null,
  }
}

/** The draft of a static code: what is wrong with it, what its fields take, and how it is stored. */
export function useStaticDraft(
  code: StaticCode | null,
  fresh: StaticDraft,
  campaignId: number,
  made: (id: number) => void,
) {
  const before = code ? stored(code) : fresh
  const [edited, setEdited] = useState<StaticDraft | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const create = useChange(staticCodesApi.create)
  const change = useChange(staticCodesApi.change)
  const measure = useChange(printApi.proofs)
  const draft = edited ?? before
  const { content, level } = draft
  const faults = useMemo(() => contentFaults(content), [content])
  const costs = useMemo(() => contentCosts(content, level), [content, level])
  const isWhole = faults.length === 0 && costs.side !== null

  async function save(): Promise<void> {
    setFault(null)
    try {
      const kept = code
        ? await change.mutateAsync({ params: { id: code.id }, body: { version: code.version, ...draft } })
        : await create.mutateAsync({ body: { campaignId, ...draft } })
      setEdited(null)
      made(kept.id)
      await measure.mutateAsync({ body: { filter: { campaignId }, ids: [], staticIds: [kept.id] } })
    } catch (error) {
      setFault(sentenceOf(error, 'Nothing was saved. Try again; what you typed is still here.'))
    }
  }
  return {
    draft,
    text: writeContent(content),
    faults,
    costs,
    isWhole,
    isChanged: edited !== null && !equal(edited, before),
    isSaving: create.isPending || change.isPending,
    fault,
    set: (more: Partial<StaticDraft>) => {
      setEdited({ ...draft, ...more })
    },
    save,
    discard: () => {
      setEdited(null)
      setFault(null)
    },
  }
}
export type StaticDraftOf = ReturnType<typeof useStaticDraft>
