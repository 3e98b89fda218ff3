import { Alert, Box, Typography } from '@mui/material'
import { useEffect, useEffectEvent } from 'react'
import type { Outcome } from './useEdits.ts'

const SHORT_MS = 4000

/** What came of the last edit; what was not taken stays until it is read. */
export function OutcomeLine({ outcome, close }: { outcome: Outcome | null; close: () => void }) {
  const closeNow = useEffectEvent(close)
  useEffect(() => {
    if (outcome?.kind !== 'done') return
    const later = setTimeout(() => {
      closeNow()
    }, SHORT_MS)
    return () => {
      clearTimeout(later)
    }
  }, [outcome])
  if (outcome === null) return null
  return (
    <Alert
      role={outcome.kind === 'trouble' ? 'alert' : 'status'}
      severity={outcome.kind === 'trouble' ? 'error' : 'success'}
      icon={false}
      variant="outlined"
      onClose={close}
      sx={{ py: 0 }}
    >
      <Typography variant="body2">{outcome.sentence}</Typography>
      {outcome.details.length > 0 && (
        <Box component="ul" sx={{ m: 0, pl: 2.5, maxHeight: 90, overflowY: 'auto' }}>
          {outcome.details.map((each, i) => (
            <li key={i}>{each}</li>
          ))}
        </Box>
      )}
    </Alert>
  )
}
