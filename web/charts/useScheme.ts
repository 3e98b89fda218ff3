import { useColorScheme } from '@mui/material/styles'
import type { Scheme } from '@flimbo/core/charts'

/** The colour scheme that shows. */
export function useScheme(): Scheme {
  const { mode, systemMode } = useColorScheme()
  return (mode === 'system' ? systemMode : mode) ?? 'light'
}
