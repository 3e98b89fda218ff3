import CloseIcon from '@mui/icons-material/Close'
import { Box, IconButton, Stack, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import { useKeys } from './keys.ts'

/** What was chosen, at the right edge of the screen. */
export function Inspector({
  title,
  close,
  children,
}: {
  title: string
  close: () => void
  children: ReactNode
}) {
  useKeys({ Escape: close })
  return (
    <Box
      component="aside"
      aria-label={title}
      sx={{
        width: { xs: 384, xl: 420 },
        flexShrink: 0,
        borderLeft: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
        overflowY: 'auto',
        maxHeight: '100%',
      }}
    >
      <Stack
        direction="row"
        sx={{
          alignItems: 'center',
          justifyContent: 'space-between',
          pl: 2,
          pr: 1,
          minHeight: 48,
          borderBottom: 1,
          borderColor: 'divider',
          position: 'sticky',
          top: 0,
          bgcolor: 'background.paper',
          zIndex: 1,
        }}
      >
        <Typography variant="h2" noWrap>
          {title}
        </Typography>
        <IconButton size="small" aria-label="Close" onClick={close}>
          <CloseIcon fontSize="small" />
        </IconButton>
      </Stack>
      <Box sx={{ p: 2 }}>{children}</Box>
    </Box>
  )
}
