import AddIcon from '@mui/icons-material/Add'
import {
  Box,
  Button,
  Link,
  Skeleton,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { questionsOf, reportsApi, type Report } from '@flimbo/core/reports'
import { useState, type SubmitEvent } from 'react'
import { Link as RouterLink, useNavigate } from 'react-router'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { useCampaignIfAny } from '../campaigns/index.ts'
import { Empty, Fault, PanelButton, Sheet, Trouble, When } from '../ui/index.ts'
import { emptyReport } from './editReport.ts'
import { reportPath } from './paths.ts'

/** The reports of a campaign, or all there are. */
export function ReportsScreen() {
  const campaign = useCampaignIfAny()
  const campaignId = campaign?.id ?? null
  const reports = useAnswer(reportsApi.list, { query: campaign ? { campaignId: campaign.id } : {} })
  if (reports.isError) return <Trouble error={reports.error} />
  const rows = reports.data?.rows
  return (
    <Box sx={{ p: 2, width: '100%', maxWidth: 1200, mx: 'auto' }}>
      <Stack direction="row" sx={{ gap: 2, mb: 2, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Reports
        </Typography>
        <Button
          component={RouterLink}
          to={campaign ? '../results' : '/results'}
          relative="path"
          color="inherit"
        >
          Results
        </Button>
        <NewReport campaignId={campaignId} />
      </Stack>
      {!rows && <Skeleton variant="rounded" height={240} />}
      {rows && (
        <Sheet pad={false}>
          {rows.length === 0 ? (
            <Empty
              title="No report yet"
              text="A report is a set of questions to the figures with your words between. It is handed on as a page, a PDF, a sheet or a mail each month. Begin one here, or choose “Add to report” beside any figures under Results."
            />
          ) : (
            <ReportTable rows={rows} isOfAll={campaign === null} />
          )}
        </Sheet>
      )}
    </Box>
  )
}

function ReportTable({ rows, isOfAll }: { rows: readonly Report[]; isOfAll: boolean }) {
  const remove = useChange(reportsApi.remove)
  return (
    <>
      <Table size="small" aria-label="Reports">
        <TableHead>
          <TableRow>
            <TableCell>Report</TableCell>
            {isOfAll && <TableCell>Of</TableCell>}
            <TableCell>Asks</TableCell>
            <TableCell>Mailed</TableCell>
            <TableCell>Links</TableCell>
            <TableCell>Changed</TableCell>
            <TableCell aria-label="Actions" />
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map(({ id, content, of, zone, changedAt, by, links, mailings }) => (
            <TableRow key={id}>
              <TableCell component="th" scope="row">
                <Link component={RouterLink} to={reportPath(id, content.campaignId)} underline="always">
                  {content.name}
                </Link>
              </TableCell>
              {isOfAll && <TableCell>{of}</TableCell>}
              <TableCell>{quantity(questionsOf(content).length, 'question')}</TableCell>
              <TableCell>{mailings === 0 ? 'no' : quantity(mailings, 'way')}</TableCell>
              <TableCell>{links === 0 ? 'none' : quantity(links, 'link')}</TableCell>
              <TableCell>
                <When at={changedAt} zone={zone} />, made by {by}
              </TableCell>
              <TableCell align="right">
                <PanelButton
                  label="Delete"
                  name={`Delete ${content.name}`}
                  color="inherit"
                  align="right"
                  width={320}
                >
                  {(close) => (
                    <Stack spacing={2}>
                      <Typography variant="body2">
                        Delete “{content.name}”? Its links show nothing from then on, and it is mailed no
                        more.
                      </Typography>
                      <Button
                        color="error"
                        variant="contained"
                        disabled={remove.isPending}
                        onClick={() => {
                          remove.mutate({ params: { id } }, { onSuccess: close })
                        }}
                      >
                        Delete
                      </Button>
                    </Stack>
                  )}
                </PanelButton>
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Fault sentence={remove.error && sentenceOf(remove.error, 'The report could not be deleted.')} />
    </>
  )
}

function NewReport({ campaignId }: { campaignId: number | null }) {
  const create = useChange(reportsApi.create)
  const navigate = useNavigate()
  const [name, setName] = useState('')
  function submit(event: SubmitEvent) {
    event.preventDefault()
    create.mutate(
      { body: { ...emptyReport({ clientId: null, campaignId }), name } },
      {
        onSuccess({ id }) {
          void navigate(reportPath(id, campaignId))
        },
      },
    )
  }
  return (
    <PanelButton label="New report" name="New report" startIcon={<AddIcon />} align="right" width={340}>
      {() => (
        <Stack component="form" noValidate spacing={2} onSubmit={submit}>
          <TextField
            size="small"
            label="Name"
            placeholder="Monthly report"
            value={name}
            autoFocus
            helperText="Its readers see it as the title."
            onChange={({ target }) => {
              setName(target.value)
            }}
          />
          <Fault sentence={create.error && sentenceOf(create.error, 'The report could not be made.')} />
          <Button type="submit" variant="contained" disabled={create.isPending}>
            Make the report
          </Button>
        </Stack>
      )}
    </PanelButton>
  )
}
