import { Alert } from '@mui/material'
import { unreachableByPhones } from '@flimbo/core/domains'

/** Says, wherever something can be printed, that phones cannot reach the host of a short link; nothing where they can. */
export function PrintWarning({ origin }: { origin: string | undefined }) {
  const sentence = origin === undefined ? null : unreachableByPhones(origin)
  return sentence === null ? null : (
    <Alert severity="warning" variant="outlined">
      {sentence}
    </Alert>
  )
}
