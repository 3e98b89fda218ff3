import { Box, Paper, Popper, Typography } from '@mui/material'
import { useEffect, useId, useRef, useState } from 'react'

export type Leaving = 'down' | 'up' | 'right' | 'left' | 'stay'

/**
 * The field a cell becomes while it is edited. Enter and Tab keep what was typed and go on, Esc drops it. What
 * cannot stand in the cell is said beneath, and the field stays.
 */
export function CellEditor({ label, initial, offers, right, keep, drop }: {
  label: string; initial: string; offers: readonly string[]; right: boolean
  /** @returns a sentence where the text cannot be kept */
  keep: (text: string, leaving: Leaving) => string | null
  drop: () => void
}) {
  const [text, setText] = useState(initial)
  const [fault, setFault] = useState<string | null>(null)
  const field = useRef<HTMLInputElement>(null)
  const left = useRef(false)
  const list = useId()
  useEffect(() => { field.current?.select() }, [])

  const leave = (leaving: Leaving) => {
    if (left.current) return
    const refusal = keep(text, leaving)
    setFault(refusal)
    left.current = refusal === null
  }
  return (
    <>
      <Box
        component="input" ref={field} value={text} aria-label={label} aria-invalid={fault !== null} aria-describedby={fault === null ? undefined : `${list}-fault`} list={offers.length > 0 ? list : undefined} autoComplete="off"
        onChange={(event) => { setText(event.target.value); setFault(null) }}
        onBlur={() => { if (fault === null) leave('stay'); else if (!left.current) { left.current = true; drop() } }}
        onKeyDown={(event) => {
          event.stopPropagation()
          if (event.key === 'Enter') { event.preventDefault(); leave(event.shiftKey ? 'up' : 'down') }
          if (event.key === 'Tab') { event.preventDefault(); leave(event.shiftKey ? 'left' : 'right') }
          if (event.key === 'Escape') { event.preventDefault(); left.current = true; drop() }
        }}
        sx={{ width: '100%', height: '100%', border: 0, outline: 'none', font: 'inherit', color: 'inherit', bgcolor: 'transparent', p: 0, textAlign: right ? 'right' : 'left' }}
      />
      {offers.length > 0 && <datalist id={list}>{offers.map((value) => <option key={value} value={value} />)}</datalist>}
      <Popper open={fault !== null} anchorEl={field.current} placement="bottom-start" sx={{ zIndex: 1300 }}>
        <Paper variant="outlined" sx={{ p: 1, mt: 0.5, maxWidth: 340, borderColor: 'error.main' }}><Typography id={`${list}-fault`} variant="body2" color="error" role="alert">{fault}</Typography></Paper>
      </Popper>
    </>
  )
}
