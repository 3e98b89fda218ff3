import { Box } from '@mui/material'
import type { ReactNode } from 'react'

/** Three columns under the track: what there is, the proof of one, its job sheet. */
export const WORKBENCH = {
  flex: 'none',
  display: 'grid',
  gridTemplateColumns: '272px minmax(0, 1fr) 384px',
  height: 'calc(100vh - 95px)',
  overflow: 'hidden',
} as const

/** The middle one: the proof, and what was measured. */
export function ProofColumn({ children }: { children: ReactNode }) {
  return (
    <Box
      role="region"
      aria-label="Proof and preflight"
      tabIndex={0}
      sx={{
        overflow: 'auto',
        p: 2,
        display: 'flex',
        flexDirection: 'column',
        gap: 2,
        minWidth: 0,
        '& > *': { flexShrink: 0 },
      }}
    >
      {children}
    </Box>
  )
}
