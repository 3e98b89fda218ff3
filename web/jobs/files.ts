import { useQueryClient } from '@tanstack/react-query'
import type { Endpoint, InputOf } from '@flimbo/core/api'
import { jobsApi, type Job } from '@flimbo/core/jobs'
import { useState } from 'react'
import { call, hrefOf, sentenceOf } from '../api/index.ts'

/** Jobs whose file this window waits for. */
const awaited = new Set<number>()

/** Takes a job's file, once it is there, if this window waits for it. @returns whether it did */
export function takeFile({ id, file }: Job): boolean {
  if (!file || !awaited.delete(id)) return false
  const link = document.createElement('a')
  link.href = hrefOf(jobsApi.file, { params: { id } })
  link.download = file.name
  document.body.append(link)
  link.click()
  link.remove()
  return true
}

/** Has a file made by a job, and downloads it when it is ready; `fault` says why it could not be ordered. */
export function useFile<E extends Endpoint>(described: E) {
  const queries = useQueryClient()
  const [fault, setFault] = useState<string | null>(null)
  async function order(input: InputOf<E>): Promise<void> {
    setFault(null)
    try {
      // Endpoints that make files answer with the job that makes it.
      const job = (await call(described, input)) as Job
      awaited.add(job.id)
      await queries.invalidateQueries({ queryKey: [jobsApi.list.path] })
    } catch (error) {
      setFault(sentenceOf(error, 'The download could not be started. Try again.'))
    }
  }
  return { order, fault }
}
