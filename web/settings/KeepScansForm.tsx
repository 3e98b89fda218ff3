import { MenuItem, Skeleton, Stack, TextField, Typography } from '@mui/material'
import { day, number, quantity } from '@flimbo/core/formats'
import { MONTHS_KEPT, retention, scansApi, type Retention } from '@flimbo/core/scans'
import { dayIn } from '@flimbo/core/time'
import { useState } from 'react'
import { useAnswer } from '../api/index.ts'
import { useSession } from '../session/index.ts'
import { Sheet, Trouble } from '../ui/index.ts'
import { FoldScansDialog } from './FoldScansDialog.tsx'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'

const FOR_EVER = 'ever'

/** How long single scans are kept; what is older stays as sums. */
export function KeepScansForm() {
  const setting = useSetting<Retention>(scansApi.retention, scansApi.changeRetention, retention)
  /** What is done once it is certain that scans may be folded. */
  const [asked, setAsked] = useState<'save' | 'overwrite' | null>(null)
  const { value } = setting
  const { workspace } = useSession()
  const zone = workspace.zone
  const effect = useAnswer(scansApi.folded, {
    query: value && value.months !== null && setting.isDirty ? { months: value.months } : {},
  })
  if (setting.answer.isError) return <Trouble error={setting.answer.error} />
  if (!value) return <Skeleton variant="rounded" height={260} />
  const { folded = null, next = null } = effect.data ?? {}
  /** How many scans would be folded is to be known before any are. */
  const isUnknown = setting.isDirty && value.months !== null && (next === null || effect.isFetching)
  async function askFirst(how: 'save' | 'overwrite'): Promise<void> {
    if (isUnknown) return
    if (next && next.scans > 0) setAsked(how)
    else await setting[how]()
  }
  const choices = [...new Set([...MONTHS_KEPT, ...(value.months === null ? [] : [value.months])])].sort(
    (a, b) => a - b,
  )
  return (
    <Sheet title="How long single scans are kept">
      <Stack spacing={2} sx={{ maxWidth: 620 }}>
        <Typography variant="body2">
          Every scan is kept as a row: its moment, piece, place, device, language and what decided it. Older
          rows can be folded into sums. Figures by piece, day, hour, place, device, language and lane stay as
          they are; the rows, their CSV and figures that cross two of these go.
        </Typography>
        <TextField
          select
          size="small"
          label="Keep single scans"
          value={value.months === null ? FOR_EVER : String(value.months)}
          onChange={({ target }) => {
            setting.set({ months: target.value === FOR_EVER ? null : Number(target.value) })
          }}
          sx={{ maxWidth: 280 }}
          helperText="Whole months are folded, on the first of each."
        >
          <MenuItem value={FOR_EVER}>for ever</MenuItem>
          {choices.map((months) => (
            <MenuItem key={months} value={String(months)}>
              {quantity(months, 'month')}
            </MenuItem>
          ))}
        </TextField>
        <Typography variant="body2" color="textSecondary">
          {folded
            ? `${number(folded.scans)} scans before ${day(dayIn(zone, folded.before))} are sums only.`
            : 'Every scan has its row.'}
          {folded && value.months === null && ' They stay so: what is folded cannot be unfolded.'}
        </Typography>
        {effect.isError && (
          <Trouble
            error={effect.error}
            retry={() => {
              void effect.refetch()
            }}
          />
        )}
        {setting.isDirty && next && (
          <Typography variant="body2" role="status">
            {next.scans === 0
              ? `No scan is older than ${day(dayIn(zone, next.before))}: nothing is folded now.`
              : `Saving folds ${quantity(next.scans, 'scan')} before ${day(dayIn(zone, next.before))}.`}
          </Typography>
        )}
        <SaveBar
          setting={{
            ...setting,
            saving: setting.saving || isUnknown,
            save: () => askFirst('save'),
            overwrite: () => askFirst('overwrite'),
          }}
        />
        {next && (
          <FoldScansDialog
            isOpen={asked !== null}
            scans={next.scans}
            before={day(dayIn(zone, next.before))}
            close={() => {
              setAsked(null)
            }}
            fold={() => {
              if (asked) void setting[asked]()
              setAsked(null)
            }}
          />
        )}
      </Stack>
    </Sheet>
  )
}
