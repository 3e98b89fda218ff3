import { Alert } from '@mui/material'

/** Why something was not done, in a sentence; nothing where there is none. */
export function Fault({ sentence }: { sentence: string | null }) {
  if (sentence === null) return null
  return (
    <Alert severity="error" variant="outlined">
      {sentence}
    </Alert>
  )
}
