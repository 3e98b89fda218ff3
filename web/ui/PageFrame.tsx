import { Box } from '@mui/material'
import { nonce } from './nonce.ts'

/**
 * A page that others see, in a frame of its own, as wide as a phone where nothing else is said. It can send nothing and lead
 * nowhere; it runs its own script where that is asked for, in an origin of its own.
 */
export function PageFrame({
  title,
  markup,
  width = 312,
  height = 560,
  runsScript = false,
}: {
  title: string
  markup: string
  width?: number | string
  height?: number | string
  runsScript?: boolean
}) {
  // The frame is under the office's policy, which lets only in what carries its nonce.
  const allowed =
    nonce === undefined
      ? markup
      : markup.replace(/<(style|script)(?: nonce="[^"]*")?\s*>/g, `<$1 nonce="${nonce}">`)
  return (
    <Box
      component="iframe"
      title={title}
      srcDoc={allowed}
      sandbox={runsScript ? 'allow-scripts' : ''}
      sx={{
        display: 'block',
        width,
        height,
        border: 1,
        borderColor: 'text.secondary',
        borderRadius: 2,
        bgcolor: '#FAF8F3',
      }}
    />
  )
}
