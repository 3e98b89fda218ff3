import { Alert, Button, Stack, Typography } from '@mui/material'
import { Conflict, Fault } from '../ui/index.ts'

interface Saving {
  isDirty: boolean
  isOvertaken: boolean
  saving: boolean
  trouble: string | null
  faults: readonly { message: string }[]
  save: () => Promise<void>
  overwrite: () => Promise<void>
  reset: () => void
}

/** The one Save of a part of the settings. */
export function SaveBar({ setting }: { setting: Saving }) {
  return (
    <Stack spacing={1}>
      <Fault sentence={setting.trouble} />
      {setting.isOvertaken && (
        <Conflict
          what="part of the settings"
          keepStored={setting.reset}
          overwrite={() => {
            void setting.overwrite()
          }}
        />
      )}
      {setting.faults.length > 0 && (
        <Alert severity="error" variant="outlined">
          {[...new Set(setting.faults.map(({ message }) => message))].join(' ')}
        </Alert>
      )}
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
        <Button
          variant="contained"
          disabled={!setting.isDirty || setting.saving}
          onClick={() => {
            void setting.save()
          }}
        >
          Save
        </Button>
        {setting.isDirty ? (
          <Button color="inherit" onClick={setting.reset}>
            Discard changes
          </Button>
        ) : (
          <Typography variant="body2" color="textSecondary" role="status">
            Everything is saved.
          </Typography>
        )}
      </Stack>
    </Stack>
  )
}
