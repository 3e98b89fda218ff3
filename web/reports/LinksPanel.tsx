import LinkIcon from '@mui/icons-material/LinkOutlined'
import { Box, Button, Link, Stack, TextField, Typography } from '@mui/material'
import { day, quantity } from '@flimbo/core/formats'
import { reportsApi, type Report, type ReportLink } from '@flimbo/core/reports'
import { dayIn, shiftDay } from '@flimbo/core/time'
import { useState } from 'react'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { Copyable, DayField, Fault, PanelButton, useNow, When } from '../ui/index.ts'

const USUAL_DAYS = 30

/** Read-only links to a report: made, copied and deleted. */
export function LinksPanel({ report }: { report: Report }) {
  return (
    <PanelButton
      label={report.links > 0 ? `Links (${String(report.links)})` : 'Share by link'}
      name="Links to the report"
      startIcon={<LinkIcon />}
      color="inherit"
      align="right"
      width={460}
    >
      {() => <Links report={report} />}
    </PanelButton>
  )
}

function Links({ report: { id, zone } }: { report: Report }) {
  const links = useAnswer(reportsApi.links, { params: { id } })
  const remove = useChange(reportsApi.removeLink)
  const rows = links.data?.rows ?? []
  return (
    <Stack spacing={2}>
      <Typography variant="body2" color="textSecondary">
        Whoever has a link sees the report as it is saved, with the figures of the moment they open it, and
        its files. They can change nothing.
      </Typography>
      {rows.length > 0 && (
        <Box
          component="ul"
          aria-label="Links"
          sx={{ listStyle: 'none', m: 0, p: 0, maxHeight: 260, overflowY: 'auto' }}
        >
          {rows.map((link) => (
            <Box component="li" key={link.id} sx={{ mb: 1.5 }}>
              <Copyable value={link.address} label="the link" />
              <Stack direction="row" sx={{ alignItems: 'center', gap: 1 }}>
                <Typography variant="body2" color="textSecondary" sx={{ flex: 1 }}>
                  <LinkState link={link} zone={zone} />
                </Typography>
                <Link href={link.address} target="_blank" rel="noreferrer" variant="body2">
                  Open
                </Link>
                <Button
                  size="small"
                  aria-label={`Delete the link until ${day(link.until)}`}
                  disabled={remove.isPending}
                  onClick={() => {
                    remove.mutate({ params: { id: link.id } })
                  }}
                >
                  Delete
                </Button>
              </Stack>
            </Box>
          ))}
        </Box>
      )}
      <Fault sentence={remove.error && sentenceOf(remove.error, 'The link could not be deleted.')} />
      <NewLink id={id} zone={zone} />
    </Stack>
  )
}

function LinkState({
  link: { until, isOver, hasPassword, opened, openedAt },
  zone,
}: {
  link: ReportLink
  zone: string
}) {
  return (
    <>
      {isOver ? `Over since ${day(until)}` : `Until ${day(until)}`}
      {hasPassword && ', with a password'}
      {opened === 0 ? ', never opened' : `, opened ${quantity(opened, 'time')}, last `}
      {openedAt !== null && <When at={openedAt} zone={zone} />}
    </>
  )
}

function NewLink({ id, zone }: { id: number; zone: string }) {
  const add = useChange(reportsApi.addLink)
  const now = useNow()
  const [until, setUntil] = useState(() => shiftDay(dayIn(zone, now), USUAL_DAYS))
  const [password, setPassword] = useState('')
  return (
    <Stack
      component="form"
      noValidate
      spacing={1.5}
      onSubmit={(event) => {
        event.preventDefault()
        // The panel stands in the form of the report.
        event.stopPropagation()
        add.mutate(
          { params: { id }, body: { until, password: password === '' ? null : password } },
          {
            onSuccess() {
              setPassword('')
            },
          },
        )
      }}
    >
      <Stack direction="row" spacing={1}>
        <Box sx={{ width: 160 }}>
          <DayField label="Good until" value={until} change={setUntil} />
        </Box>
        <TextField
          size="small"
          label="Password, if any"
          type="password"
          autoComplete="new-password"
          value={password}
          sx={{ flex: 1 }}
          onChange={({ target }) => {
            setPassword(target.value)
          }}
        />
      </Stack>
      <Fault sentence={add.error && sentenceOf(add.error, 'The link could not be made.')} />
      <Button type="submit" variant="contained" disabled={add.isPending || until === ''}>
        Make a link
      </Button>
    </Stack>
  )
}
