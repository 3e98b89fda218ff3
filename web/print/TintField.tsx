import { Box, Button, InputBase, Popover, Stack, Typography } from '@mui/material'
import { cmykOf, type Tint } from '@flimbo/core/symbol'
import { useState } from 'react'
import { HexColorPicker, setNonce } from 'react-colorful'
import { nonce } from '../ui/index.ts'
import { NumberField } from './rows.tsx'

if (nonce !== undefined) setNonce(nonce)

const HEX = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i
const INKS = ['Cyan', 'Magenta', 'Yellow', 'Black'] as const

/** A colour as it was typed, as # and six digits; null where it is none. */
export function colourIn(text: string): string | null {
  const found = HEX.exec(text.trim())?.[1]?.toLowerCase()
  if (found === undefined) return null
  return `#${found.length === 3 ? [...found].map((digit) => digit + digit).join('') : found}`
}

/** A colour: typed, picked, and for presses in the four inks, which are worked out until somebody says them. */
export function TintField({ label, tint, set }: { label: string; tint: Tint; set: (tint: Tint) => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const [typed, setTyped] = useState<string | null>(null)
  const text = typed ?? tint.rgb
  const isWrong = typed !== null && colourIn(typed) === null
  // Another colour has other inks: those that were said belong to the one before.
  const setRgb = (rgb: string) => {
    if (rgb !== tint.rgb) set({ rgb, cmyk: null })
  }
  const inks =
    tint.cmyk ??
    (cmykOf({ kind: 'solid', colour: tint.rgb }).map((share) => Math.round(share * 100)) as [
      number,
      number,
      number,
      number,
    ])
  return (
    <>
      <Box
        component="button"
        type="button"
        aria-label={`Choose ${label}`}
        aria-haspopup="dialog"
        onClick={(event) => {
          setAnchor(event.currentTarget)
        }}
        sx={{
          width: 22,
          height: 22,
          p: 0,
          border: 1,
          borderColor: 'text.secondary',
          borderRadius: 0.5,
          bgcolor: tint.rgb,
          cursor: 'pointer',
        }}
      />
      <InputBase
        value={text}
        error={isWrong}
        onChange={(event) => {
          setTyped(event.target.value)
          const read = colourIn(event.target.value)
          if (read !== null) setRgb(read)
        }}
        onBlur={() => {
          setTyped(null)
        }}
        sx={{
          width: 78,
          px: 0.75,
          border: 1,
          borderColor: isWrong ? 'error.main' : 'divider',
          borderRadius: 0.75,
          typography: 'mono',
          '& input': { py: 0.25 },
        }}
        inputProps={{ 'aria-label': label, spellCheck: false, 'aria-invalid': isWrong }}
      />
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => {
          setAnchor(null)
        }}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': label, sx: { p: 1.5 } } }}
      >
        <Stack spacing={1}>
          <HexColorPicker color={tint.rgb} onChange={setRgb} />
          <Typography variant="body2" color="textSecondary">
            In print, per cent{tint.cmyk ? '' : ' (worked out)'}
          </Typography>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 0.5 }}>
            {INKS.map((ink, i) => (
              <Box key={ink} sx={{ textAlign: 'center' }}>
                <NumberField
                  label={`${ink} of ${label}`}
                  value={inks[i] ?? 0}
                  min={0}
                  max={100}
                  unit={ink.slice(0, 1) === 'B' ? 'K' : ink.slice(0, 1)}
                  width={44}
                  set={(value) => {
                    const next = [...inks] as [number, number, number, number]
                    next[i] = value ?? 0
                    set({ ...tint, cmyk: next })
                  }}
                />
              </Box>
            ))}
          </Box>
          {tint.cmyk && (
            <Button
              size="small"
              color="inherit"
              onClick={() => {
                set({ ...tint, cmyk: null })
              }}
            >
              Work the inks out again
            </Button>
          )}
        </Stack>
      </Popover>
    </>
  )
}
