import { Dialog, DialogContent, DialogContentText, DialogTitle } from '@mui/material'
import { useEffect } from 'react'
import { useBlocker } from 'react-router'
import { DialogButtons } from './DialogButtons.tsx'

/** Asks before what was typed and not saved is left behind, whichever way. */
export function LeaveGuard({ isChanged, what }: { isChanged: boolean; what: string }) {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) => isChanged && currentLocation.pathname !== nextLocation.pathname,
  )
  useEffect(() => {
    if (!isChanged) return
    const ask = (event: BeforeUnloadEvent) => {
      event.preventDefault()
    }
    window.addEventListener('beforeunload', ask)
    return () => {
      window.removeEventListener('beforeunload', ask)
    }
  }, [isChanged])
  return (
    <Dialog
      open={blocker.state === 'blocked'}
      onClose={() => blocker.reset?.()}
      aria-labelledby="leave-guard"
    >
      <DialogTitle id="leave-guard">Leave without saving?</DialogTitle>
      <DialogContent>
        <DialogContentText>What you changed in this {what} since it was saved is lost.</DialogContentText>
      </DialogContent>
      <DialogButtons
        close={() => blocker.reset?.()}
        label="Discard changes"
        act={() => blocker.proceed?.()}
        isDisabled={false}
        isDestructive
      />
    </Dialog>
  )
}
