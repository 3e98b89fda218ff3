import { Box } from '@mui/material'
import type { State } from '@flimbo/core/routing'

/** A state as a shape and a word, so that it never stands on colour alone. */
export function StateMark({ state }: { state: State }) {
  const look = { live: ['●', 'primary.main'], paused: ['◐', 'warning.main'], deleted: ['○', 'text.secondary'] }[state]
  return <Box component="span" sx={{ display: 'inline-flex', gap: 0.75 }}><Box component="span" aria-hidden sx={{ color: look[1] }}>{look[0]}</Box>{state}</Box>
}
