import UploadIcon from '@mui/icons-material/UploadFileOutlined'
import { Alert, Box, Button, Stack, Typography } from '@mui/material'
import { planApi, type PlanImport } from '@flimbo/core/plan'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { ApiProblem, call, upload, useChange } from '../api/index.ts'
import { useCampaign } from '../campaigns/index.ts'
import { counted } from '@flimbo/core/formats'
import { Sheet, Trouble } from '../ui/index.ts'
import { ImportColumns } from './ImportColumns.tsx'
import { ImportLines } from './ImportLines.tsx'
import { ImportProgress } from './ImportProgress.tsx'

const LOOK_MS = 300

/** A plan out of a file: handed in, looked over line by line, and only then imported. */
export function ImportScreen() {
  const campaign = useCampaign()
  const queries = useQueryClient()
  const [address, setAddress] = useSearchParams()
  const [trouble, setTrouble] = useState<string | null>(null)
  const [reading, setReading] = useState(false)
  const [over, setOver] = useState(false)
  const field = useRef<HTMLInputElement>(null)
  const id = Number(address.get('file')) || null
  const key = [planApi.get.path, { params: { id } }]
  const file = useQuery({
    queryKey: key,
    queryFn: () => call(planApi.get, { params: { id: id ?? 0 } }),
    enabled: id !== null,
    retry: false,
    refetchInterval: ({ state }) => (state.data?.stage === 'running' ? LOOK_MS : false),
  })
  const run = useChange(planApi.run)
  const show = (now: PlanImport) => {
    queries.setQueryData([planApi.get.path, { params: { id: now.id } }], now)
  }

  async function handIn(chosen: File | undefined): Promise<void> {
    if (!chosen) return
    setTrouble(null)
    setReading(true)
    try {
      const read = await upload(
        planApi.read,
        { query: { campaignId: campaign.id, name: chosen.name.slice(0, 200) } },
        chosen,
      )
      show(read)
      setAddress({ file: String(read.id) }, { replace: true })
    } catch (error) {
      setTrouble(
        error instanceof ApiProblem ? error.problem.detail : 'The file could not be sent. Try again.',
      )
    }
    setReading(false)
  }
  const begin = async (lines: 'all' | 'good') => {
    if (id === null) return
    setTrouble(null)
    try {
      show(await run.mutateAsync({ params: { id }, body: { lines } }))
      void file.refetch()
    } catch (error) {
      setTrouble(
        error instanceof ApiProblem
          ? error.problem.detail
          : 'The import could not be begun. Nothing was imported.',
      )
    }
  }

  const data = id === null ? undefined : file.data
  const counts = data?.counts
  const useful = (counts?.create ?? 0) + (counts?.change ?? 0)
  const ready = data !== undefined && data.stage !== 'running' && data.stage !== 'done'
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1440, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 2, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Import a plan
        </Typography>
        {data && (
          <Button
            color="inherit"
            onClick={() => {
              setAddress({}, { replace: true })
              setTrouble(null)
            }}
          >
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
      {id !== null && file.isError && <Trouble error={file.error} />}
      {(id === null || file.isError) && (
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
              void handIn(event.dataTransfer.files[0])
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
              disabled={reading}
              onClick={() => {
                field.current?.click()
              }}
            >
              {reading ? 'Reading it…' : 'Choose a file'}
            </Button>
            <input
              ref={field}
              type="file"
              hidden
              aria-label="File to import"
              accept=".csv,.tsv,.txt,.xlsx,text/csv"
              onChange={(event) => {
                void handIn(event.target.files?.[0])
                event.target.value = ''
              }}
            />
            <Typography variant="body2" color="textSecondary">
              Or drop it here.{' '}
              <Button component="a" size="small" href={`/api/plan.csv?campaignId=${String(campaign.id)}`}>
                Download this plan as a sample
              </Button>
            </Typography>
          </Stack>
        </Sheet>
      )}
      {data && counts && (
        <Stack spacing={2}>
          <Sheet
            title={`${data.fileName}: ${counted(counts.create, 'piece')} to create, ${String(counts.change)} to change, ${String(counts.same)} the same, ${String(counts.refuse)} refused`}
            aside={
              ready && (
                <Stack direction="row" spacing={1}>
                  {counts.refuse > 0 && useful > 0 && (
                    <Button
                      variant="outlined"
                      onClick={() => {
                        void begin('good')
                      }}
                    >
                      Import the good lines only
                    </Button>
                  )}
                  <Button
                    variant="contained"
                    disabled={counts.refuse > 0 || useful === 0}
                    onClick={() => {
                      void begin('all')
                    }}
                  >
                    Import everything
                  </Button>
                </Stack>
              )
            }
          >
            {data.stage === 'ready' && useful === 0 && (
              <Typography>Nothing here would change the plan.</Typography>
            )}
            {data.stage === 'ready' && counts.refuse > 0 && (
              <Typography variant="body2">
                Everything goes in only once no line is refused. Correct the file, say below what its columns
                stand for, or leave the refused lines out.
              </Typography>
            )}
            {data.stage === 'ready' && counts.refuse === 0 && useful > 0 && (
              <Typography variant="body2">
                {counts.warned > 0
                  ? `${counted(counts.warned, 'line')} can be imported though something should be looked over.`
                  : 'Every line is good.'}
              </Typography>
            )}
            <ImportProgress
              file={data}
              refresh={() => {
                void file.refetch()
              }}
            />
          </Sheet>
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
