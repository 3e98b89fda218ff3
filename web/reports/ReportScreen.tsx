import { Box, Button, Skeleton, Stack, Typography } from '@mui/material'
import { REPORT_FILE_NAMES, REPORT_FILES, reportsApi, type Report } from '@flimbo/core/reports'
import { useState } from 'react'
import { Link as RouterLink, Navigate, useParams } from 'react-router'
import { useAnswer } from '../api/index.ts'
import { useFile } from '../jobs/index.ts'
import { Conflict, Fault, LeaveGuard, PanelButton, Trouble } from '../ui/index.ts'
import { BlockEditor } from './BlockEditor.tsx'
import { BlockList } from './BlockList.tsx'
import { LinksPanel } from './LinksPanel.tsx'
import { MailingsPanel } from './MailingsPanel.tsx'
import { reportsPath } from './paths.ts'
import { ReportPreview } from './ReportPreview.tsx'
import { ReportSettings } from './ReportSettings.tsx'
import { useReportDraft } from './useReportDraft.ts'

/** One report: written at the left, as its readers see it at the right. */
export function ReportScreen() {
  const id = Number(useParams().reportId)
  const isNumber = Number.isSafeInteger(id) && id > 0
  const report = useAnswer(reportsApi.get, { params: { id } }, { enabled: isNumber })
  // Half an address is that of all reports.
  if (!isNumber) return <Navigate to=".." relative="path" replace />
  if (report.isError) return <Trouble error={report.error} />
  if (!report.data) return <Skeleton variant="rounded" height={480} sx={{ m: 2 }} />
  return <Writing key={id} report={report.data} />
}

function Writing({ report }: { report: Report }) {
  const draft = useReportDraft(report)
  const { content, isChanged, isSaving, faults, trouble, edit } = draft
  const [chosen, setChosen] = useState<string | null>(null)
  const block = content.blocks.find(({ key }) => key === chosen)
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event: React.SubmitEvent) => {
        event.preventDefault()
        void draft.save()
      }}
      sx={{ p: 2, width: '100%' }}
    >
      <Stack direction="row" sx={{ gap: 1, mb: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography variant="h1" noWrap sx={{ flex: 1, minWidth: 200 }}>
          {content.name || 'Report'}
        </Typography>
        <Button component={RouterLink} to={reportsPath(report.content.campaignId)} color="inherit">
          All reports
        </Button>
        <Downloads report={report} isChanged={isChanged} />
        <LinksPanel report={report} />
        <MailingsPanel report={report} />
        {isChanged && (
          <Button color="inherit" onClick={draft.discard}>
            Discard changes
          </Button>
        )}
        <Button type="submit" variant="contained" disabled={!isChanged || isSaving}>
          Save
        </Button>
      </Stack>
      <LeaveGuard isChanged={isChanged} what="report" />
      <Fault sentence={trouble} />
      {draft.isOvertaken && (
        <Box sx={{ mb: 1.5 }}>
          <Conflict what="report" keepStored={draft.discard} overwrite={draft.overwrite} />
        </Box>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(420px, 5fr) minmax(0, 7fr)', gap: 2 }}>
        <Stack spacing={2} sx={{ minWidth: 0 }}>
          <ReportSettings
            content={content}
            zone={report.zone}
            ofName={report.of}
            faults={faults}
            edit={edit}
          />
          <BlockList content={content} chosen={chosen} choose={setChosen} edit={edit} faults={faults}>
            {block && (
              <BlockEditor
                key={block.key}
                block={block}
                content={content}
                zone={report.zone}
                edit={edit}
                remove={() => {
                  setChosen(null)
                }}
              />
            )}
          </BlockList>
        </Stack>
        <ReportPreview content={content} />
      </Box>
    </Box>
  )
}

function Downloads({ report: { id }, isChanged }: { report: Report; isChanged: boolean }) {
  const file = useFile(reportsApi.makeFile)
  return (
    <>
      {/* The panel is closed by then. */}
      <Fault sentence={file.fault} />
      <PanelButton label="Download" name="Download the report" color="inherit" align="right" width={280}>
        {(close) => (
          <Stack spacing={1}>
            <Typography variant="body2" color="textSecondary">
              {isChanged
                ? 'The report as it was saved last, with the figures of now.'
                : 'With the figures of now.'}
            </Typography>
            {REPORT_FILES.map((each) => (
              <Button
                key={each}
                color="inherit"
                sx={{ justifyContent: 'flex-start' }}
                onClick={() => {
                  close()
                  void file.order({ params: { id }, body: { file: each } })
                }}
              >
                {REPORT_FILE_NAMES[each]}
              </Button>
            ))}
          </Stack>
        )}
      </PanelButton>
    </>
  )
}
