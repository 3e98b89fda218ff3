import {
  Autocomplete,
  Button,
  Checkbox,
  FormControlLabel,
  MenuItem,
  Stack,
  Switch,
  TextField,
} from '@mui/material'
import { fieldFaults } from '@flimbo/core/api'
import {
  mailingSettings,
  REPORT_FILE_NAMES,
  REPORT_FILES,
  reportsApi,
  type MailingEvery,
  type MailingSettings,
  type ReportMailing,
} from '@flimbo/core/reports'
import { WEEKDAYS } from '@flimbo/core/time'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { ZONES } from '../session/index.ts'
import { Fault } from '../ui/index.ts'

const EVERY: Readonly<Record<MailingEvery, string>> = {
  hour: 'Every hour',
  day: 'Every day',
  week: 'Every week',
  month: 'Every month',
}

/** Addresses as they are typed or pasted: with commas, semicolons, spaces or lines between. */
export const addressesIn = (text: string): string[] => text.split(/[\s,;]+/).filter((each) => each !== '')

const usual = (zone: string): MailingSettings => ({
  every: 'month',
  at: '07:00',
  weekday: 1,
  monthDay: 1,
  zone,
  to: [],
  message: '',
  files: ['pdf'],
  isPaused: false,
})

interface Props {
  readonly reportId: number
  /** Null for a new one. */
  readonly mailing: ReportMailing | null
  readonly zone: string
  readonly done: () => void
}

/** When a report is mailed, to whom, and with what. */
export function MailingForm({ reportId, mailing, zone, done }: Props) {
  const [settings, setSettings] = useState<MailingSettings>(() => mailing?.settings ?? usual(zone))
  const [typed, setTyped] = useState(() => settings.to.join(', '))
  const [faults, setFaults] = useState<ReadonlyMap<string, string>>(new Map())
  const add = useChange(reportsApi.addMailing)
  const change = useChange(reportsApi.changeMailing)
  const set = (part: Partial<MailingSettings>) => {
    setSettings((old) => ({ ...old, ...part }))
  }
  const { every, at, weekday, monthDay, message, files, isPaused } = settings
  function save(): void {
    const read = mailingSettings.safeParse({ ...settings, to: addressesIn(typed) })
    setFaults(
      new Map(
        // Which of the addresses it is does not matter: they stand in one field.
        read.success
          ? []
          : fieldFaults(read.error).map(({ path, message: said }) => [path.split('.')[0] ?? '', said]),
      ),
    )
    if (!read.success) return
    if (mailing) change.mutate({ params: { id: mailing.id }, body: read.data }, { onSuccess: done })
    else add.mutate({ params: { id: reportId }, body: read.data }, { onSuccess: done })
  }
  const error = add.error ?? change.error
  return (
    <Stack
      component="form"
      noValidate
      spacing={2}
      onSubmit={(event) => {
        event.preventDefault()
        // The panel stands in the form of the report.
        event.stopPropagation()
        save()
      }}
    >
      <TextField
        size="small"
        label="Mail to"
        placeholder="jo@client.example, max@client.example"
        value={typed}
        autoFocus
        multiline
        error={faults.has('to')}
        helperText={faults.get('to') ?? 'Mail addresses; each reader can end these mails.'}
        onChange={({ target }) => {
          setTyped(target.value)
        }}
      />
      <Stack direction="row" spacing={1}>
        <TextField
          select
          size="small"
          label="How often"
          value={every}
          sx={{ width: 140 }}
          onChange={({ target }) => {
            set({ every: target.value as MailingEvery })
          }}
        >
          {Object.entries(EVERY).map(([each, words]) => (
            <MenuItem key={each} value={each}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        {every === 'week' && (
          <TextField
            select
            size="small"
            label="On"
            value={String(weekday)}
            sx={{ width: 130 }}
            onChange={({ target }) => {
              set({ weekday: Number(target.value) })
            }}
          >
            {WEEKDAYS.map((name, i) => (
              <MenuItem key={name} value={String(i + 1)}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {every === 'month' && (
          <TextField
            size="small"
            label="On day"
            value={String(monthDay)}
            error={faults.has('monthDay')}
            helperText={faults.get('monthDay')}
            sx={{ width: 90 }}
            slotProps={{ htmlInput: { inputMode: 'numeric' } }}
            onChange={({ target }) => {
              set({ monthDay: Number(target.value.replace(/\D/g, '')) })
            }}
          />
        )}
        {every !== 'hour' && (
          <TextField
            size="small"
            label="At"
            value={at}
            error={faults.has('at')}
            helperText={faults.get('at')}
            sx={{ width: 90 }}
            onChange={({ target }) => {
              set({ at: target.value })
            }}
          />
        )}
      </Stack>
      <Autocomplete
        size="small"
        options={[...ZONES]}
        value={settings.zone}
        disableClearable
        autoHighlight
        onChange={(_event, next) => {
          set({ zone: next })
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            label="Time zone"
            error={faults.has('zone')}
            helperText={faults.get('zone')}
          />
        )}
      />
      <TextField
        size="small"
        label="Message"
        placeholder="Here are last month’s figures."
        value={message}
        multiline
        minRows={2}
        error={faults.has('message')}
        helperText={faults.get('message')}
        onChange={({ target }) => {
          set({ message: target.value })
        }}
      />
      <Stack direction="row" role="group" aria-label="Attached" sx={{ flexWrap: 'wrap' }}>
        {REPORT_FILES.map((file) => (
          <FormControlLabel
            key={file}
            control={
              <Checkbox
                size="small"
                checked={files.includes(file)}
                onChange={(_event, on) => {
                  set({ files: on ? [...files, file] : files.filter((each) => each !== file) })
                }}
              />
            }
            label={REPORT_FILE_NAMES[file]}
          />
        ))}
      </Stack>
      <FormControlLabel
        control={
          <Switch
            size="small"
            checked={isPaused}
            onChange={(_event, on) => {
              set({ isPaused: on })
            }}
          />
        }
        label="Paused"
      />
      <Fault sentence={error && sentenceOf(error, 'It could not be saved. Try again.')} />
      <Stack direction="row" spacing={1}>
        <Button type="submit" variant="contained" disabled={add.isPending || change.isPending}>
          Save
        </Button>
        {mailing && (
          <Button color="inherit" onClick={done}>
            Cancel
          </Button>
        )}
      </Stack>
    </Stack>
  )
}
