import {
  printedSymbol,
  styledScene,
  type Level,
  type Look,
  type LookParts,
  type Scene,
} from '@flimbo/core/symbol'
import { useMemo } from 'react'
import { SceneDrawing } from './SceneDrawing.tsx'

const DRAWN_MAX = 1000
/** Symbols drawn lately: a plan that is scrolled shows the same ones again and again. */
const known = new Map<string, Scene>()
/** Looks are kept by what they are: equal ones are drawn once. */
const names = new WeakMap<Look, string>()

function nameOf(look: Look): string {
  const there = names.get(look)
  if (there !== undefined) return there
  const name = JSON.stringify(look)
  names.set(look, name)
  return name
}

/** Small pictures show no border, and no logo: they tell pieces apart, and are not what is printed. */
const SMALL: LookParts = { text: () => ({ width: 0, outlines: [] }), pictureSize: () => null }

function drawn(link: string, level: Level, look: Look): Scene {
  const key = `${level} ${link} ${nameOf(look)}`
  const there = known.get(key)
  if (there) return there
  const scene = styledScene(printedSymbol(link, level), { ...look, surround: null }, 1, '', '', SMALL)
  known.set(key, scene)
  const [oldest] = known.keys()
  if (known.size > DRAWN_MAX && oldest !== undefined) known.delete(oldest)
  return scene
}

/** A symbol in its look, small: on white in either scheme, with its quiet zone. */
export function SymbolPicture({
  text,
  level,
  look,
  size,
  label,
}: {
  /** What it carries. */
  text: string
  level: Level
  look: Look
  size: number | string
  label: string
}) {
  const scene = useMemo(() => drawn(text, level, look), [text, level, look])
  return (
    <span style={{ background: '#fff', display: 'block', flexShrink: 0, width: size, height: size }}>
      <SceneDrawing scene={scene} label={label} width="100%" height="100%" />
    </span>
  )
}
