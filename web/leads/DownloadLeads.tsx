import { Button, Checkbox, FormControlLabel, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { LEAD_COLUMNS, type LeadColumn, type LeadFileLook } from '@flimbo/core/leads'
import { useState } from 'react'
import { PanelButton } from '../ui/index.ts'

const NAMES: Readonly<Record<LeadColumn, string>> = {
  lead: 'Number',
  time_utc: 'Time (UTC)',
  state: 'State',
  tags: 'Tags',
  page: 'Page',
  code_id: 'Number of the piece',
  code: 'Piece',
  route_id: 'Number of the route',
  scan: 'Number of the scan',
  language: 'Language',
  country: 'Country',
  region: 'Region',
  city: 'City',
  device: 'Device',
  utm_source: 'UTM source',
  utm_medium: 'UTM medium',
  utm_campaign: 'UTM campaign',
  utm_content: 'UTM content',
  utm_term: 'UTM term',
  confirmed_utc: 'Address confirmed (UTC)',
  consents: 'Agreed to',
}
const ALL: LeadFileLook = { format: 'csv', columns: [...LEAD_COLUMNS], isAnswered: true, choices: 'joined' }

/** Downloads the leads that are listed: as which file, and with which columns. */
export function DownloadLeads({ order }: { order: (look: LeadFileLook) => void }) {
  const [look, setLook] = useState(ALL)
  const tick = (label: string, isOn: boolean, change: (isOn: boolean) => void) => (
    <FormControlLabel
      key={label}
      label={label}
      slotProps={{ typography: { variant: 'body2' } }}
      control={
        <Checkbox
          size="small"
          checked={isOn}
          sx={{ py: 0.25 }}
          onChange={(_event, next) => {
            change(next)
          }}
        />
      }
    />
  )
  return (
    <PanelButton label="Download…" name="Download leads" align="right" width={460}>
      {(close) => (
        <Stack
          component="form"
          sx={{ gap: 1.5 }}
          onSubmit={(event) => {
            event.preventDefault()
            order(look)
            close()
          }}
        >
          <Typography variant="h2">Download the leads that are listed</Typography>
          <Stack direction="row" sx={{ gap: 1 }}>
            <TextField
              select
              size="small"
              label="As"
              value={look.format}
              sx={{ flex: 1 }}
              onChange={({ target }) => {
                setLook({ ...look, format: target.value as LeadFileLook['format'] })
              }}
            >
              <MenuItem value="csv">CSV</MenuItem>
              <MenuItem value="xlsx">Sheet (XLSX)</MenuItem>
            </TextField>
            <TextField
              select
              size="small"
              label="Choices"
              value={look.choices}
              sx={{ flex: 1 }}
              onChange={({ target }) => {
                setLook({ ...look, choices: target.value as LeadFileLook['choices'] })
              }}
            >
              <MenuItem value="joined">In one column</MenuItem>
              <MenuItem value="split">A column each</MenuItem>
            </TextField>
          </Stack>
          <Stack
            role="group"
            aria-label="Columns"
            sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1 }}
          >
            {tick('Answers', look.isAnswered, (isAnswered) => {
              setLook({ ...look, isAnswered })
            })}
            {LEAD_COLUMNS.map((name) =>
              tick(NAMES[name], look.columns.includes(name), (isOn) => {
                const rest = look.columns.filter((each) => each !== name)
                setLook({ ...look, columns: isOn ? [...rest, name] : rest })
              }),
            )}
          </Stack>
          <Button
            type="submit"
            variant="contained"
            disabled={!look.isAnswered && look.columns.length === 0}
            sx={{ alignSelf: 'flex-end' }}
          >
            Download
          </Button>
        </Stack>
      )}
    </PanelButton>
  )
}
