import UploadIcon from '@mui/icons-material/UploadFileOutlined'
import { Button, Stack, Typography } from '@mui/material'
import { useRef, useState } from 'react'
import { Sheet } from '../ui/index.ts'

interface Props {
  readonly campaignId: number
  readonly isReading: boolean
  readonly take: (file: File | undefined) => Promise<void>
}

/** Where a plan is handed in as a file: chosen or dropped. */
export function FileDrop({ campaignId, isReading, take }: Props) {
  const [over, setOver] = useState(false)
  const field = useRef<HTMLInputElement>(null)
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
        <Button
          variant="contained"
          startIcon={<UploadIcon />}
          disabled={isReading}
          onClick={() => {
            field.current?.click()
          }}
        >
          {isReading ? 'Reading it…' : 'Choose a file'}
        </Button>
        <input
          ref={field}
          type="file"
          hidden
          aria-label="File to import"
          accept=".csv,.tsv,.txt,.xlsx,text/csv"
          onChange={(event) => {
            void take(event.target.files?.[0])
            event.target.value = ''
          }}
        />
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
