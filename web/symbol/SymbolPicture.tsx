import { Box } from '@mui/material'
import { printedLink } from '@flimbo/core/codes'
import { encode, fullSide, outlinePath, type Level } from '@flimbo/core/symbol'
import { useMemo } from 'react'

/** A code's symbol as it prints: black on white in either scheme, with its quiet zone. */
export function SymbolPicture({ origin, slug, level, size, label }: { origin: string; slug: string; level: Level; size: number | string; label: string }) {
  const symbol = useMemo(() => encode(printedLink(origin, slug), level), [origin, slug, level])
  const full = fullSide(symbol.side)
  return (
    <Box component="svg" role="img" aria-label={label} viewBox={`0 0 ${String(full)} ${String(full)}`} shapeRendering="crispEdges" sx={{ width: size, height: size, display: 'block', flexShrink: 0 }}>
      <rect width={full} height={full} fill="#fff" />
      <path d={outlinePath(symbol)} fill="#000" fillRule="evenodd" />
    </Box>
  )
}
