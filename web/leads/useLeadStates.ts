import { leadsApi, USUAL_STATES, type LeadStateRow } from '@flimbo/core/leads'
import { useAnswer } from '../api/index.ts'

/** The workspace's states of leads, in their order, and what each is called. */
export function useLeadStates(): { states: readonly LeadStateRow[]; nameOf: (key: string) => string } {
  const { states } = useAnswer(leadsApi.states, {}).data?.value ?? USUAL_STATES
  return { states, nameOf: (key) => states.find((each) => each.key === key)?.name ?? key }
}
