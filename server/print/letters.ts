import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { readLetters, type Face, type Letters, type SetText } from '@flimbo/core/symbol'

const NEXT = '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next'
const MONO = '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono'
const FILES: Readonly<Record<Face, readonly string[]>> = {
  caption: [`${NEXT}-latin-600-normal.woff`, `${NEXT}-latin-ext-600-normal.woff`],
  link: [`${MONO}-latin-500-normal.woff`, `${MONO}-latin-ext-500-normal.woff`],
}

const read = new Map<Face, Letters>()

function lettersOf(face: Face): Letters {
  const there = read.get(face)
  if (there) return there
  const resolve = createRequire(import.meta.url)
  const letters = readLetters(
    FILES[face].map((name) => {
      const { buffer, byteOffset, byteLength } = readFileSync(resolve.resolve(name))
      return buffer.slice(byteOffset, byteOffset + byteLength)
    }),
  )
  read.set(face, letters)
  return letters
}

/** Texts as outlines of the letters that ship with Flimbo: files need no fonts. */
export const setText: SetText = (text, face) => lettersOf(face).outline(text)
