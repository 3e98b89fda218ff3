import { Box } from '@mui/material'
import { nonce } from './nonce.ts'

/** A page of the front door in a frame as wide as a phone. It cannot run, send or lead anywhere. */
export function PhoneFrame({
  title,
  markup,
  height = 560,
}: {
  title: string
  markup: string
  height?: number
}) {
  // The frame is under the office's policy, which lets only styles in that carry its nonce.
  const styled = nonce === undefined ? markup : markup.replace('<style>', `<style nonce="${nonce}">`)
  return (
    <Box
      component="iframe"
      title={title}
      srcDoc={styled}
      sandbox=""
      sx={{
        display: 'block',
        width: 312,
        height,
        border: 1,
        borderColor: 'text.secondary',
        borderRadius: 2,
        bgcolor: '#FAF8F3',
      }}
    />
  )
}
