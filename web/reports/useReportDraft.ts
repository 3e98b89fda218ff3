import { reportContent, reportsApi, type Report, type ReportContent } from '@flimbo/core/reports'
import { fieldFaults } from '@flimbo/core/api'
import equal from 'fast-deep-equal'
import { useState } from 'react'
import { faultsIn, sentenceOf, useChange, useVersion } from '../api/index.ts'

/** A report while it is written: nothing of it is stored before it is saved. */
export function useReportDraft(report: Report) {
  const [draft, setDraft] = useState<ReportContent | null>(null)
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map())
  const [trouble, setTrouble] = useState<string | null>(null)
  const change = useChange(reportsApi.change)
  const isChanged = draft !== null && !equal(draft, report.content)
  const version = useVersion<Report>(report.version, isChanged)
  const content = draft ?? report.content

  async function save(): Promise<void> {
    setTrouble(null)
    const read = reportContent.safeParse(content)
    setFaults(
      new Map(read.success ? [] : fieldFaults(read.error).map(({ path, message }) => [path, message])),
    )
    if (!read.success) {
      setTrouble(fieldFaults(read.error)[0]?.message ?? 'Something in the report is not right.')
      return
    }
    try {
      const saved = await version.save((from) =>
        change.mutateAsync({ params: { id: report.id }, body: { version: from, content: read.data } }),
      )
      if (saved) setDraft(null)
    } catch (error) {
      setFaults(
        new Map(faultsIn(error).map(({ path, message }) => [path.replace(/^content\./, ''), message])),
      )
      setTrouble(sentenceOf(error, 'The report could not be saved. What you wrote is still here.'))
    }
  }

  return {
    content,
    isChanged,
    isSaving: change.isPending,
    faults,
    trouble,
    /** Whether somebody else saved it in the meantime. */
    isOvertaken: version.newer !== null,
    edit: setDraft,
    save,
    discard: () => {
      setDraft(null)
      setFaults(new Map())
      setTrouble(null)
      version.rebase()
    },
    /** Replaces what somebody else saved. */
    overwrite: () => {
      version.rebase()
      void save()
    },
  }
}
export type ReportDraft = ReturnType<typeof useReportDraft>
