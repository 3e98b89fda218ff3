import captionLatin from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-600-normal.woff?url'
import captionMore from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-600-normal.woff?url'
import linkLatin from '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-500-normal.woff?url'
import linkMore from '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-ext-500-normal.woff?url'
import { readLetters, type Face, type Letters, type SetText } from '@flimbo/core/symbol'

const FILES: Readonly<Record<Face, readonly string[]>> = {
  caption: [captionLatin, captionMore],
  link: [linkLatin, linkMore],
}

async function lettersOf(face: Face): Promise<Letters> {
  return readLetters(
    await Promise.all(FILES[face].map(async (address) => (await fetch(address)).arrayBuffer())),
  )
}

/** Letters as texts are set in them, and the signs there are no letters for. */
export interface Faces {
  readonly setText: SetText
  readonly missing: (text: string, face: Face) => string[]
}

/** Reads the letters that captions and links are set in: the very files that the server sets them in. */
export async function readFaces(): Promise<Faces> {
  const [caption, link] = await Promise.all([lettersOf('caption'), lettersOf('link')])
  const of = (face: Face) => (face === 'caption' ? caption : link)
  return {
    setText: (text, face) => of(face).outline(text),
    missing: (text, face) => of(face).missing(text),
  }
}
