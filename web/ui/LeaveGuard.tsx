import { Dialog, DialogContent, DialogContentText, DialogTitle } from '@mui/material'
import { useEffect } from 'react'
import { useBlocker, type Location } from 'react-router'
import { DialogButtons } from './DialogButtons.tsx'

interface Props {
  readonly isChanged: boolean
  /** What it is that was changed, in a word. */
  readonly what: string
  /** The name in the address that says which one is open, where its path does not. */
  readonly param?: string
}

/** Asks before what was typed and not saved is left behind, whichever way. */
export function LeaveGuard({ isChanged, what, param }: Props) {
  const blocker = useBlocker(({ currentLocation: now, nextLocation: next }) => {
    const isOther = param !== undefined && chosenIn(now, param) !== chosenIn(next, param)
    return isChanged && (isOther || now.pathname !== next.pathname)
  })
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

const chosenIn = ({ search }: Location, param: string) => new URLSearchParams(search).get(param)
