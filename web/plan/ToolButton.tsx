import { Box, Button, Tooltip } from '@mui/material'
import type { ReactNode } from 'react'

interface Props {
  readonly label: string
  readonly icon: ReactNode
  readonly popup: 'dialog' | 'menu'
  readonly open: (anchor: HTMLElement) => void
}

/** A button of the plan’s toolbar, icon and label; where the toolbar is narrow, its label shows as a tooltip only. */
export function ToolButton({ label, icon, popup, open }: Props) {
  return (
    <Tooltip title={label} describeChild disableInteractive>
      <Button
        color="inherit"
        aria-label={label}
        aria-haspopup={popup}
        onClick={(event) => {
          open(event.currentTarget)
        }}
        sx={{ gap: 1, minWidth: 36, flexShrink: 0, whiteSpace: 'nowrap' }}
      >
        {icon}
        <Box component="span" sx={{ '@container toolbar (max-width: 1020px)': { display: 'none' } }}>
          {label}
        </Box>
      </Button>
    </Tooltip>
  )
}
