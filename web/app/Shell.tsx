import { Box, Link } from '@mui/material'
import type { ReactNode } from 'react'
import { useLive } from '../api/index.ts'
import { OwnJobs } from '../jobs/index.ts'
import { TopBar } from './TopBar.tsx'

/** What stands around every screen: the top bar, and a way past it by keyboard. */
export function Shell({ children }: { children: ReactNode }) {
  useLive()
  return (
    <Box sx={{ minHeight: '100vh', display: 'flex', flexDirection: 'column' }}>
      <Link
        href="#content"
        sx={{
          position: 'absolute',
          left: -9999,
          zIndex: 2000,
          bgcolor: 'background.paper',
          p: 1,
          '&:focus': { left: 8, top: 8 },
        }}
      >
        Skip to the content
      </Link>
      <TopBar />
      <Box
        component="main"
        id="content"
        tabIndex={-1}
        sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column', outline: 'none' }}
      >
        {children}
      </Box>
      <OwnJobs />
    </Box>
  )
}
