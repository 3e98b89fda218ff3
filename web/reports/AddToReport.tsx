import ReportIcon from '@mui/icons-material/SummarizeOutlined'
import { Button, Divider, Link, Stack, TextField, Typography } from '@mui/material'
import { reportsApi, type Report } from '@flimbo/core/reports'
import type { SavedValue } from '@flimbo/core/results'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Fault, NamePick, PanelButton } from '../ui/index.ts'
import { addBlock, emptyReport, questionBlock } from './editReport.ts'
import { reportPath, reportsPath } from './paths.ts'

interface Props {
  /** What is asked, and of whom. */
  readonly value: SavedValue
  readonly campaignId: number | null
}

/** Puts the question that is asked into a report: one that is there, or a new one. */
export function AddToReport(props: Props) {
  return (
    <PanelButton label="Report" name="Add to a report" startIcon={<ReportIcon />} align="right" width={360}>
      {() => <Adding {...props} />}
    </PanelButton>
  )
}

function Adding({ value, campaignId }: Props) {
  const reports = useAnswer(reportsApi.list, { query: campaignId === null ? {} : { campaignId } })
  const change = useChange(reportsApi.change)
  const create = useChange(reportsApi.create)
  const [chosen, setChosen] = useState<number | null>(null)
  const [name, setName] = useState('')
  const [added, setAdded] = useState<Report | null>(null)
  const rows = reports.data?.rows ?? []
  const report = rows.find(({ id }) => id === chosen)
  // All of the report's campaign, or all there is, goes with the report.
  const { campaignId: own, ...named } = value
  const block =
    named.codeId === undefined && named.routeId === undefined && own === campaignId ? named : value
  const error = change.error ?? create.error
  return (
    <Stack spacing={2}>
      <Stack direction="row" spacing={1}>
        <NamePick
          label="Report"
          options={rows.map(({ id, content }) => ({ id, name: content.name }))}
          chosen={chosen}
          change={setChosen}
          width={240}
        />
        <Button
          variant="contained"
          disabled={!report || change.isPending}
          onClick={() => {
            if (!report) return
            const content = addBlock(report.content, questionBlock(report.content, block), null)
            change.mutate(
              { params: { id: report.id }, body: { version: report.version, content } },
              { onSuccess: setAdded },
            )
          }}
        >
          Add
        </Button>
      </Stack>
      <Divider>or</Divider>
      <Stack
        component="form"
        noValidate
        direction="row"
        spacing={1}
        onSubmit={(event) => {
          event.preventDefault()
          const empty = { ...emptyReport({ clientId: null, campaignId }), name, period: value.view.period }
          create.mutate({ body: addBlock(empty, questionBlock(empty, block), null) }, { onSuccess: setAdded })
        }}
      >
        <TextField
          size="small"
          label="New report"
          value={name}
          sx={{ flex: 1 }}
          onChange={({ target }) => {
            setName(target.value)
          }}
        />
        <Button type="submit" variant="outlined" disabled={create.isPending}>
          Make
        </Button>
      </Stack>
      <Fault sentence={error && sentenceOf(error, 'The question was not added. Try again.')} />
      {added && (
        <Typography variant="body2" role="status">
          Added to{' '}
          <Link component={RouterLink} to={reportPath(added.id, added.content.campaignId)}>
            {added.content.name}
          </Link>
          .
        </Typography>
      )}
      <Link component={RouterLink} to={reportsPath(campaignId)} variant="body2">
        All reports
      </Link>
    </Stack>
  )
}
