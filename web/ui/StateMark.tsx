import { Box } from '@mui/material'
import type { State } from '@flimbo/core/routing'

/** The shape that stands for a state beside its word. */
export const STATE_SHAPES: Readonly<Record<State, string>> = { live: '●', paused: '◐', deleted: '○' }
const INK = { live: 'primary.main', paused: 'warning.main', deleted: 'text.secondary' } as const

/** A state as a shape and a word, so that it never stands on colour alone. */
export function StateMark({ state }: { state: State }) {
  return (
    <Box component="span" sx={{ display: 'inline-flex', gap: 0.75 }}>
      <Box component="span" aria-hidden sx={{ color: INK[state] }}>
        {STATE_SHAPES[state]}
      </Box>
      {state}
    </Box>
  )
}
