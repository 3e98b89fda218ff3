import { Box, LinearProgress, Typography } from '@mui/material'
import { reportContent, reportsApi, type ReportContent } from '@flimbo/core/reports'
import { useEffect, useState } from 'react'
import { sentenceOf, useAnswer } from '../api/index.ts'
import { Fault, PageFrame } from '../ui/index.ts'

/** A report is drawn once its writer rests for so long. */
const REST_MS = 500

/** A value, once it has not changed for a while. */
function useRested<T>(value: T, restMs: number): T {
  const [rested, setRested] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => {
      setRested(value)
    }, restMs)
    return () => {
      clearTimeout(timer)
    }
  }, [value, restMs])
  return rested
}

/** A report as its readers see it: the server draws the same page for them. */
export function ReportPreview({ content }: { content: ReportContent }) {
  const rested = useRested(content, REST_MS)
  // What is not named yet has a name in the preview alone.
  const named = { ...rested, name: rested.name.trim() === '' ? 'Report' : rested.name }
  const read = reportContent.safeParse(named)
  const page = useAnswer(
    reportsApi.page,
    { body: read.success ? read.data : named },
    { enabled: read.success },
  )
  return (
    <Box sx={{ minWidth: 0, position: 'sticky', top: 8, alignSelf: 'start' }}>
      <Box sx={{ height: 4 }}>
        {page.isFetching && <LinearProgress aria-label="Drawing the report" sx={{ height: 2 }} />}
      </Box>
      <Fault
        sentence={
          read.success
            ? page.error && sentenceOf(page.error, 'The report could not be drawn.')
            : (read.error.issues[0]?.message ?? null)
        }
      />
      {page.data && (
        <PageFrame
          title="The report as its readers see it"
          markup={page.data.markup}
          width="100%"
          height="calc(100vh - 190px)"
        />
      )}
      <Typography variant="caption" color="textSecondary">
        As its readers see it, with the figures of now.
      </Typography>
    </Box>
  )
}
