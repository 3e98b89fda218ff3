import { Box, Stack, Tab, Tabs } from '@mui/material'
import { visuallyHidden } from '@mui/utils'
import type { ReactNode } from 'react'

export type JobPage = 'look' | 'files' | 'sheets' | 'release'

interface Props {
  readonly page: JobPage
  readonly setPage: (page: JobPage) => void
  /** What the first page is called: what is said of the thing itself. */
  readonly first: string
  /** Whether there is something to make files of. */
  readonly isStored: boolean
  readonly tools?: ReactNode
  /** What stands below every page. */
  readonly foot: ReactNode
  readonly children: ReactNode
}

/** The frame of a job sheet: its pages, and what stands above and below each of them. */
export function JobFrame({ page, setPage, first, isStored, tools, foot, children }: Props) {
  return (
    <Stack
      component="aside"
      aria-label="Job sheet"
      sx={{ borderLeft: 1, borderColor: 'divider', bgcolor: 'background.paper', minHeight: 0 }}
    >
      <Stack direction="row" sx={{ px: 1, alignItems: 'center', borderBottom: 1, borderColor: 'divider' }}>
        <Box component="h2" sx={visuallyHidden}>
          Job sheet
        </Box>
        <Tabs
          value={page}
          onChange={(_event, next: JobPage) => {
            setPage(next)
          }}
          aria-label="Pages of the job sheet"
          sx={{ flex: 1, minHeight: 36, '& .MuiTab-root': { minHeight: 36, minWidth: 64, px: 1.5 } }}
        >
          <Tab value="look" label={first} id="job-look" aria-controls="job-page" />
          <Tab value="files" label="Files" disabled={!isStored} id="job-files" aria-controls="job-page" />
          <Tab value="sheets" label="Sheets" disabled={!isStored} id="job-sheets" aria-controls="job-page" />
          <Tab
            value="release"
            label="Release"
            disabled={!isStored}
            id="job-release"
            aria-controls="job-page"
          />
        </Tabs>
        {tools}
      </Stack>
      <Box
        id="job-page"
        role="tabpanel"
        aria-labelledby={`job-${page}`}
        sx={{ flex: 1, overflow: 'auto', px: 2, py: 1.25, minHeight: 0 }}
      >
        {children}
      </Box>
      {foot}
    </Stack>
  )
}
