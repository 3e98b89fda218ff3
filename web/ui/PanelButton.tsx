import { Button, Popover, type ButtonProps } from '@mui/material'
import { useRef, useState, type ReactNode } from 'react'

interface Props extends Pick<ButtonProps, 'color' | 'startIcon'> {
  readonly label: string
  /** What the panel is called to those who do not see it. */
  readonly name: string
  /** The panel's edge that stands under that of the button. */
  readonly align?: 'left' | 'right'
  readonly width: number
  /** What stands in the panel; it may close it. */
  readonly children: (close: () => void) => ReactNode
}

/** A button that opens a panel under itself. */
export function PanelButton({ label, name, align = 'left', width, children, ...look }: Props) {
  const button = useRef<HTMLButtonElement>(null)
  const [isOpen, setOpen] = useState(false)
  const close = () => {
    setOpen(false)
  }
  return (
    <>
      <Button
        ref={button}
        {...look}
        aria-haspopup="dialog"
        onClick={() => {
          setOpen(true)
        }}
      >
        {label}
      </Button>
      <Popover
        open={isOpen}
        anchorEl={() => button.current}
        anchorOrigin={{ vertical: 'bottom', horizontal: align }}
        transformOrigin={{ vertical: 'top', horizontal: align }}
        onClose={close}
        slotProps={{ paper: { role: 'dialog', 'aria-label': name, sx: { p: 2, width } } }}
      >
        {children(close)}
      </Popover>
    </>
  )
}
