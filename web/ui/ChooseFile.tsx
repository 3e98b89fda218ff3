import { Button, type ButtonProps } from '@mui/material'
import { useRef } from 'react'

type Props = Omit<ButtonProps, 'onClick'> & {
  /** What the file is, to whoever hears the page. */
  readonly of: string
  /** As an `accept` attribute has it. */
  readonly accept: string
  readonly take: (file: File | undefined) => Promise<void> | void
}

/** A button by which somebody chooses a file of theirs; the same file can be chosen again. */
export function ChooseFile({ of, accept, take, ...button }: Props) {
  const field = useRef<HTMLInputElement>(null)
  return (
    <>
      <Button
        {...button}
        onClick={() => {
          field.current?.click()
        }}
      />
      <input
        ref={field}
        type="file"
        hidden
        accept={accept}
        aria-label={of}
        onChange={({ target }) => {
          void take(target.files?.[0])
          target.value = ''
        }}
      />
    </>
  )
}
