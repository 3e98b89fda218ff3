import { Button, DialogActions } from '@mui/material'

interface Props {
  readonly close: () => void
  readonly label: string
  readonly act: () => unknown
  readonly isDisabled: boolean
  readonly isDestructive?: boolean
}

/** How a dialog ends: by Cancel, or by doing what it asks about. */
export function DialogButtons({ close, label, act, isDisabled, isDestructive = false }: Props) {
  return (
    <DialogActions>
      <Button onClick={close} color="inherit">
        Cancel
      </Button>
      <Button
        variant="contained"
        color={isDestructive ? 'error' : 'primary'}
        disabled={isDisabled}
        onClick={() => {
          act()
        }}
      >
        {label}
      </Button>
    </DialogActions>
  )
}
