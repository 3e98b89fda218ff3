import { contentOf } from '@flimbo/core/codes'
import { encode, pathData, symbolScene, type Level, type PlainArea } from '@flimbo/core/symbol'
import { useMemo } from 'react'

interface Drawn {
  readonly full: number
  readonly areas: readonly PlainArea[]
}
const DRAWN_MAX = 1000
/** Symbols drawn lately: a plan that is scrolled shows the same ones again and again. */
const known = new Map<string, Drawn>()

function drawn(link: string, level: Level): Drawn {
  const key = `${level} ${link}`
  const there = known.get(key)
  if (there) return there
  const { width, marks } = symbolScene(encode(link, level), 1, '')
  const fresh = { full: width, areas: marks }
  known.set(key, fresh)
  const [oldest] = known.keys()
  if (known.size > DRAWN_MAX && oldest !== undefined) known.delete(oldest)
  return fresh
}

/** A code's symbol as it prints: black on white in either scheme, with its quiet zone. */
export function SymbolPicture({
  origin,
  slug,
  level,
  size,
  label,
}: {
  origin: string
  slug: string
  level: Level
  size: number | string
  label: string
}) {
  const { full, areas } = useMemo(() => drawn(contentOf({ origin, slug }), level), [origin, slug, level])
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`0 0 ${String(full)} ${String(full)}`}
      shapeRendering="crispEdges"
      style={{ width: size, height: size, display: 'block', flexShrink: 0 }}
    >
      {areas.map(({ outlines, ink }, i) => (
        <path key={i} d={pathData(outlines)} fill={ink.colour} fillRule="evenodd" />
      ))}
    </svg>
  )
}
