import { Alert, Box, Button, Stack, Typography } from '@mui/material'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { useCampaign } from '../campaigns/index.ts'
import { Trouble } from '../ui/index.ts'
import { FileDrop } from './FileDrop.tsx'
import { ImportColumns } from './ImportColumns.tsx'
import { ImportLines } from './ImportLines.tsx'
import { ImportSummary } from './ImportSummary.tsx'
import { usePlanFile } from './usePlanFile.ts'

/** A plan out of a file: handed in, looked over line by line, and only then imported. */
export function ImportScreen() {
  const { id } = useCampaign()
  const [address] = useSearchParams()
  const { file, data, trouble, isReading, handIn, begin, show, close } = usePlanFile(
    id,
    Number(address.get('file')) || null,
  )
  const ready = data !== undefined && data.stage !== 'running' && data.stage !== 'done'
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 2, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Import a plan
        </Typography>
        {data && (
          <Button color="inherit" onClick={close}>
            Another file
          </Button>
        )}
        <Button component={RouterLink} to="../plan" color="inherit">
          Back to the plan
        </Button>
      </Stack>
      {trouble !== null && (
        <Alert severity="error" variant="outlined" sx={{ mb: 2 }}>
          {trouble}
        </Alert>
      )}
      {file.isError && <Trouble error={file.error} />}
      {(!address.has('file') || file.isError) && (
        <FileDrop campaignId={id} isReading={isReading} take={handIn} />
      )}
      {data && (
        <Stack spacing={2}>
          <ImportSummary
            file={data}
            isReady={ready}
            begin={begin}
            refresh={() => {
              void file.refetch()
            }}
          />
          {ready && <ImportColumns file={data} adjusted={show} />}
          {data.stage !== 'done' && (
            <ImportLines
              key={JSON.stringify([
                data.columns.map(({ to }) => to),
                data.headings,
                data.encoding,
                data.empty,
                data.fix,
              ])}
              file={data}
            />
          )}
        </Stack>
      )}
    </Box>
  )
}
