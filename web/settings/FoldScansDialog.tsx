import { Dialog, DialogContent, DialogTitle, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { DialogButtons } from '../ui/index.ts'

interface Props {
  readonly isOpen: boolean
  readonly scans: number
  /** The day before which they are, as it is written. */
  readonly before: string
  readonly close: () => void
  readonly fold: () => void
}

/** Rows that are folded do not come back, so it is asked first. */
export function FoldScansDialog({ isOpen, scans, before, close, fold }: Props) {
  return (
    <Dialog open={isOpen} onClose={close} fullWidth maxWidth="xs" aria-labelledby="fold-scans">
      <DialogTitle id="fold-scans">Fold scans before {before}</DialogTitle>
      <DialogContent>
        <Typography>
          {quantity(scans, 'scan')} before {before} become sums, at once. Their rows are deleted and cannot be
          brought back, except with a backup of the whole Flimbo.
        </Typography>
      </DialogContent>
      <DialogButtons
        close={close}
        label={`Fold ${quantity(scans, 'scan')}`}
        act={fold}
        isDisabled={false}
        isDestructive
      />
    </Dialog>
  )
}
