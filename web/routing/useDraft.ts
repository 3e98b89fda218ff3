import { draftChange, isSameRoute, routesApi, type Rules, type WholeRoute } from '@flimbo/core/routing'
import { useAutosave, useChange, type Autosave } from '../api/index.ts'

/** What is being prepared of a route: where everything else leads, and its rules. */
export interface Draft {
  readonly destination: string
  readonly rules: Rules
}

export interface DraftState extends Autosave<Draft> {
  /** Whether it differs from what is live. */
  readonly isPrepared: boolean
}

const versionOf = ({ draftVersion }: WholeRoute) => draftVersion
const partsOf = ({ destination, rules }: Draft): Draft => ({ destination, rules })
const shape = draftChange.omit({ draftVersion: true })

/** Keeps the draft of a route. */
export function useDraft(route: WholeRoute): DraftState {
  const { mutateAsync } = useChange(routesApi.saveDraft)
  const state = useAutosave<Draft, WholeRoute>({
    stored: partsOf(route.draft ?? route),
    version: route.draftVersion,
    versionOf,
    send: (draftVersion, draft) =>
      mutateAsync({ params: { id: route.id }, body: { draftVersion, ...draft } }),
    faultOf(draft) {
      const { error } = shape.safeParse(draft)
      return error ? (error.issues[0]?.message ?? 'Something is missing.') : null
    },
  })
  return { ...state, isPrepared: !isSameRoute(state.draft, route) }
}
