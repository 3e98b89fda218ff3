import MailIcon from '@mui/icons-material/MailOutlined'
import { Alert, Box, Button, Skeleton, Stack, Typography } from '@mui/material'
import { mailingInWords, reportsApi, type Report, type ReportMailing } from '@flimbo/core/reports'
import { moment } from '@flimbo/core/formats'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Fault, PanelButton, When } from '../ui/index.ts'
import { MailingForm } from './MailingForm.tsx'

/** When a report is mailed, and to whom: seen, added, changed and ended. */
export function MailingsPanel({ report }: { report: Report }) {
  return (
    <PanelButton
      label={report.mailings > 0 ? `Mailed (${String(report.mailings)})` : 'Mail regularly'}
      name="Mail the report"
      startIcon={<MailIcon />}
      color="inherit"
      align="right"
      width={480}
    >
      {() => <Mailings report={report} />}
    </PanelButton>
  )
}

function Mailings({ report: { id, zone } }: { report: Report }) {
  const mailings = useAnswer(reportsApi.mailings, { params: { id } })
  const [edited, setEdited] = useState<number | 'new' | null>(null)
  const rows = mailings.data?.rows ?? []
  const done = () => {
    setEdited(null)
  }
  if (!mailings.data) return <Skeleton variant="rounded" height={160} />
  if (edited === 'new' || rows.length === 0)
    return <MailingForm reportId={id} mailing={null} zone={zone} done={done} />
  const one = rows.find((each) => each.id === edited)
  if (one) return <MailingForm reportId={id} mailing={one} zone={zone} done={done} />
  return (
    <Stack spacing={2}>
      {rows.map((mailing) => (
        <MailingRow
          key={mailing.id}
          mailing={mailing}
          edit={() => {
            setEdited(mailing.id)
          }}
        />
      ))}
      <Button
        variant="outlined"
        onClick={() => {
          setEdited('new')
        }}
      >
        Mail it to others too
      </Button>
    </Stack>
  )
}

function MailingRow({ mailing, edit }: { mailing: ReportMailing; edit: () => void }) {
  const remove = useChange(reportsApi.removeMailing)
  const send = useChange(reportsApi.mailNow)
  const { id, settings, nextAt, sentAt, fault } = mailing
  return (
    <Box>
      <Typography variant="body2">
        {settings.isPaused ? 'Paused: ' : ''}
        {mailingInWords(settings)}, to {settings.to.join(', ') || 'nobody'}
      </Typography>
      <Typography variant="body2" color="textSecondary">
        {nextAt !== null && `Next on ${moment(nextAt, settings.zone)}. `}
        Last: <When at={sentAt} zone={settings.zone} />
      </Typography>
      {fault !== '' && (
        <Alert severity="warning" variant="outlined" sx={{ my: 1 }}>
          It could not be mailed last time. {fault}
        </Alert>
      )}
      <Stack direction="row" spacing={1}>
        <Button size="small" onClick={edit}>
          Change
        </Button>
        <Button
          size="small"
          disabled={send.isPending}
          onClick={() => {
            send.mutate({ params: { id } })
          }}
        >
          Mail now
        </Button>
        <Button
          size="small"
          color="inherit"
          disabled={remove.isPending}
          onClick={() => {
            remove.mutate({ params: { id } })
          }}
        >
          Delete
        </Button>
      </Stack>
      <Typography variant="caption" role="status" color="textSecondary">
        {send.isSuccess ? 'It is being made, and mailed then.' : ''}
      </Typography>
      <Fault
        sentence={
          (send.error ?? remove.error) &&
          sentenceOf(send.error ?? remove.error, 'That did not work. Try again.')
        }
      />
    </Box>
  )
}
