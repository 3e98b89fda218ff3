import { Skeleton, Stack, TextField, Typography } from '@mui/material'
import { SLUG_LENGTHS, SLUG_SIGNS } from '@flimbo/core/codes'
import { workspaceApi, workspaceSettings, type WorkspaceSettings } from '@flimbo/core/workspace'
import { number } from '@flimbo/core/formats'
import { Sheet, Trouble } from '../ui/index.ts'
import { SaveBar } from './SaveBar.tsx'
import { useSetting } from './useSetting.ts'

/** How long generated short links are, and in which currency costs stand. */
export function LinksForm() {
  const setting = useSetting<WorkspaceSettings>(
    workspaceApi.settings,
    workspaceApi.changeSettings,
    workspaceSettings,
  )
  const { value } = setting
  if (setting.answer.isError) return <Trouble error={setting.answer.error} />
  if (!value) return <Skeleton variant="rounded" height={220} />
  return (
    <Sheet title="Short links and currency">
      <Stack spacing={2} sx={{ maxWidth: 520 }}>
        <TextField
          size="small"
          type="number"
          label="Length of generated short links"
          value={value.slugLength}
          onChange={(event) => {
            setting.set({ ...value, slugLength: Number(event.target.value) })
          }}
          slotProps={{ htmlInput: { min: SLUG_LENGTHS.min, max: SLUG_LENGTHS.max } }}
          error={setting.faultOf('slugLength') !== undefined}
          helperText={
            setting.faultOf('slugLength') ??
            `${String(SLUG_SIGNS.length)} characters that do not look alike: ${number(SLUG_SIGNS.length ** value.slugLength)} short links. Links that are issued stay as they are.`
          }
        />
        <TextField
          size="small"
          label="Currency of costs"
          value={value.currency}
          onChange={(event) => {
            setting.set({ ...value, currency: event.target.value })
          }}
          error={setting.faultOf('currency') !== undefined}
          helperText={setting.faultOf('currency') ?? 'Three-letter code (ISO 4217), such as EUR, DKK or GBP'}
        />
        <Typography variant="body2" color="textSecondary">
          A short link is never in sequence with another, so nobody can count yours by trying the next.
        </Typography>
        <SaveBar setting={setting} />
      </Stack>
    </Sheet>
  )
}
