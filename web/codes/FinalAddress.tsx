import { Box, Typography } from '@mui/material'
import type { Code } from '@flimbo/core/codes'
import { Copyable } from '../ui/index.ts'

/** Parts an address at its query pairs, so that each tag can be marked. */
function partsOf(address: string, own: readonly string[]): { text: string; tag: boolean }[] {
  return address
    .split(/(?<=[?&])|(?=[&#])/)
    .map((text) => ({ text, tag: /^utm_/.test(text) || own.some((name) => text.startsWith(`${name}=`)) }))
}

/** Where a scan ends up, its tags marked, and which of the destination's own they took the place of. */
export function FinalAddress({
  code: { finalAddress, clashes, extra },
}: {
  code: Pick<Code, 'finalAddress' | 'clashes' | 'extra'>
}) {
  return (
    <>
      <Copyable value={finalAddress} label="the final address">
        {partsOf(finalAddress, Object.keys(extra)).map(({ text, tag }, i) =>
          tag ? (
            <Box
              key={i}
              component="mark"
              sx={{
                bgcolor: 'transparent',
                color: 'primary.main',
                fontWeight: 650,
                textDecoration: 'underline',
                textUnderlineOffset: 2,
              }}
            >
              {text}
            </Box>
          ) : (
            <span key={i}>{text}</span>
          ),
        )}
      </Copyable>
      {clashes.map(({ name, replaced, by }) => (
        <Typography key={name} variant="body2" color="warning" role="note">
          The destination has {name}={replaced} itself; this piece’s “{by}” takes its place.
        </Typography>
      ))}
    </>
  )
}
