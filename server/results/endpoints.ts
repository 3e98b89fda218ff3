import { resultsApi } from '@flimbo/core/results'
import { mount, wrongField, type Mounts } from '../api/index.ts'
import type { Database } from '../database/index.ts'
import { scopeOwner } from './owner.ts'
import type { Reader } from './reader.ts'

export function resultsEndpoints(mounts: Mounts, { database, reader }: { database: Database; reader: Reader }): void {
  mount(mounts, resultsApi.get, async ({ query: { compare, ...query }, who }) => {
    const { zone } = await scopeOwner(database, who.workspace.id, query)
    try {
      return await reader.ask('results', { ...query, zone, compare: compare === 'yes', now: Date.now() })
    } catch (error) {
      if (error instanceof Error && error.name === 'TooManyBuckets') throw wrongField('unit', error.message)
      throw error
    }
  })
}
