import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material'
import { quantity } from '@flimbo/core/formats'
import { leadsApi, type Lead } from '@flimbo/core/leads'
import { useState } from 'react'
import { sentenceOf, useChange } from '../api/index.ts'
import { Fault } from '../ui/index.ts'

/** Erases a person, after it was said what that means: it cannot be undone. */
export function EraseLead({ lead, erased }: { lead: Lead; erased: () => void }) {
  const [isOpen, setOpen] = useState(false)
  const erase = useChange(leadsApi.erase)
  const count = lead.others.length + 1
  const close = () => {
    setOpen(false)
  }
  return (
    <>
      <Button
        size="small"
        color="error"
        onClick={() => {
          setOpen(true)
        }}
      >
        Erase this person
      </Button>
      <Dialog open={isOpen} onClose={close} aria-labelledby="erase-title" maxWidth="xs">
        <DialogTitle id="erase-title">Erase this person?</DialogTitle>
        <DialogContent>
          <Typography variant="body2">
            {quantity(count, 'answer')} with this mail address or telephone number, with notes and files, will
            be gone for good. Figures keep the count. Backups of the server keep them for as long as they are
            kept.
          </Typography>
          <Fault sentence={erase.error ? sentenceOf(erase.error, 'Nothing was erased. Try again.') : null} />
        </DialogContent>
        <DialogActions>
          <Button color="inherit" onClick={close}>
            Cancel
          </Button>
          <Button
            color="error"
            variant="contained"
            disabled={erase.isPending}
            onClick={() => {
              erase.mutate({ params: { id: lead.id }, body: {} }, { onSuccess: erased })
            }}
          >
            Erase
          </Button>
        </DialogActions>
      </Dialog>
    </>
  )
}
