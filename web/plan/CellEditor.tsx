import { Autocomplete, InputBase, Paper, Popper, Typography } from '@mui/material'
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react'

export type Leaving = 'down' | 'up' | 'right' | 'left' | 'stay'

/**
 * The field a cell becomes while it is edited. Enter and Tab keep what was typed and go on, Esc drops it. What
 * cannot stand in the cell is said beneath, and the field stays.
 */
export function CellEditor({
  label,
  initial,
  offers,
  right,
  keep,
  drop,
}: {
  label: string
  initial: string
  offers: readonly string[]
  right: boolean
  /** @returns a sentence where the text cannot be kept */
  keep: (text: string, leaving: Leaving) => string | null
  drop: () => void
}) {
  const [text, setText] = useState(initial)
  const [fault, setFault] = useState<string | null>(null)
  const field = useRef<HTMLInputElement>(null)
  const offered = useRef<string | null>(null)
  const left = useRef(false)
  const faultId = useId()
  useEffect(() => {
    field.current?.select()
  }, [])

  const leave = (leaving: Leaving, kept = text) => {
    if (left.current) return
    const refusal = keep(kept, leaving)
    setFault(refusal)
    left.current = refusal === null
  }
  const onKeyDown = (event: KeyboardEvent & { defaultMuiPrevented?: boolean }) => {
    event.stopPropagation()
    // What the arrow keys picked from the list is kept like what was typed.
    const kept = offered.current ?? text
    if (event.key === 'Enter') leave(event.shiftKey ? 'up' : 'down', kept)
    else if (event.key === 'Tab') leave(event.shiftKey ? 'left' : 'right', kept)
    else if (event.key === 'Escape') {
      left.current = true
      drop()
    } else return
    event.preventDefault()
    event.defaultMuiPrevented = true
  }
  const onBlur = () => {
    if (fault === null) leave('stay')
    else if (!left.current) {
      left.current = true
      drop()
    }
  }
  return (
    <>
      <Autocomplete
        freeSolo
        fullWidth
        disableClearable
        options={[...offers]}
        inputValue={text}
        value={text}
        openOnFocus={false}
        selectOnFocus={false}
        onKeyDown={onKeyDown}
        forcePopupIcon={false}
        onInputChange={(_event, typed, reason) => {
          if (reason !== 'reset') {
            setText(typed)
            setFault(null)
          }
        }}
        onChange={(_event, chosen) => {
          setText(chosen)
        }}
        onHighlightChange={(_event, option) => {
          offered.current = option
        }}
        slotProps={{ popper: { style: { minWidth: 180 } } }}
        renderInput={(params) => (
          <InputBase
            ref={params.slotProps.input.ref}
            inputRef={field}
            fullWidth
            sx={{
              font: 'inherit',
              color: 'inherit',
              '& input': { p: 0, textAlign: right ? 'right' : 'left', font: 'inherit' },
            }}
            onBlur={onBlur}
            slotProps={{
              input: {
                ...params.slotProps.htmlInput,
                'aria-label': label,
                'aria-invalid': fault !== null,
                'aria-describedby': fault === null ? undefined : faultId,
              },
            }}
          />
        )}
      />
      <Popper open={fault !== null} anchorEl={field.current} placement="bottom-start" sx={{ zIndex: 1300 }}>
        <Paper variant="outlined" sx={{ p: 1, mt: 0.5, maxWidth: 340, borderColor: 'error.main' }}>
          <Typography id={faultId} variant="body2" color="error" role="alert">
            {fault}
          </Typography>
        </Paper>
      </Popper>
    </>
  )
}
