import UploadIcon from '@mui/icons-material/UploadFileOutlined'
import { Button, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { ChooseFile, Sheet } from '../ui/index.ts'

interface Props {
  readonly campaignId: number
  readonly isReading: boolean
  readonly take: (file: File | undefined) => Promise<void>
}

/** Where a plan is handed in as a file: chosen or dropped. */
export function FileDrop({ campaignId, isReading, take }: Props) {
  const [over, setOver] = useState(false)
  return (
    <Sheet>
      <Stack
        onDragOver={(event) => {
          event.preventDefault()
          setOver(true)
        }}
        onDragLeave={() => {
          setOver(false)
        }}
        onDrop={(event) => {
          event.preventDefault()
          setOver(false)
          void take(event.dataTransfer.files[0])
        }}
        sx={{
          alignItems: 'center',
          textAlign: 'center',
          py: 6,
          gap: 1.5,
          border: 2,
          borderStyle: 'dashed',
          borderColor: over ? 'primary.main' : 'divider',
          borderRadius: 1,
        }}
      >
        <Typography variant="h2">Upload a CSV file or an XLSX workbook</Typography>
        <Typography color="textSecondary" sx={{ maxWidth: 520 }}>
          One line a piece. You see first what every line would do; nothing is changed before you say so.
          Lines with a key that is in the plan already change that piece, so the same file can be imported
          again.
        </Typography>
        <ChooseFile
          of="File to import"
          accept=".csv,.tsv,.txt,.xlsx,text/csv"
          take={take}
          variant="contained"
          startIcon={<UploadIcon />}
          disabled={isReading}
        >
          {isReading ? 'Reading it…' : 'Choose a file'}
        </ChooseFile>
        <Typography variant="body2" color="textSecondary">
          Or drop it here.{' '}
          <Button component="a" size="small" href={`/api/plan.csv?campaignId=${String(campaignId)}`}>
            Download this plan as a sample
          </Button>
        </Typography>
      </Stack>
    </Sheet>
  )
}
