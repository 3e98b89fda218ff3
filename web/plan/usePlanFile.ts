import { planApi, type PlanImport } from '@flimbo/core/plan'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { call, sentenceOf, upload, useChange } from '../api/index.ts'

const LOOK_MS = 300
const NAME_MAX = 200

const keyOf = (id: number | null) => [planApi.get.path, { params: { id } }]

/** A file being imported: handed in, read, run, and looked at until it is done. `id` is null before one is handed in. */
export function usePlanFile(campaignId: number, id: number | null) {
  const queries = useQueryClient()
  const [, setAddress] = useSearchParams()
  const [trouble, setTrouble] = useState<string | null>(null)
  const [isReading, setReading] = useState(false)
  const file = useQuery({
    queryKey: keyOf(id),
    queryFn: () => call(planApi.get, { params: { id: id ?? 0 } }),
    enabled: id !== null,
    retry: false,
    refetchInterval: ({ state }) => (state.data?.stage === 'running' ? LOOK_MS : false),
  })
  const run = useChange(planApi.run)
  const show = (now: PlanImport) => {
    queries.setQueryData(keyOf(now.id), now)
  }

  async function handIn(chosen: File | undefined): Promise<void> {
    if (!chosen) return
    setTrouble(null)
    setReading(true)
    try {
      const name = chosen.name.slice(0, NAME_MAX)
      const read = await upload(planApi.read, { query: { campaignId, name } }, chosen)
      show(read)
      setAddress({ file: String(read.id) }, { replace: true })
    } catch (error) {
      setTrouble(sentenceOf(error, 'The file could not be sent. Try again.'))
    }
    setReading(false)
  }

  async function begin(lines: 'all' | 'good'): Promise<void> {
    if (id === null) return
    setTrouble(null)
    try {
      show(await run.mutateAsync({ params: { id }, body: { lines } }))
      void file.refetch()
    } catch (error) {
      setTrouble(sentenceOf(error, 'The import could not be started. Nothing was imported.'))
    }
  }

  return {
    file,
    data: id === null ? undefined : file.data,
    trouble,
    isReading,
    handIn,
    begin,
    show,
    close: () => {
      setAddress({}, { replace: true })
      setTrouble(null)
    },
  }
}
