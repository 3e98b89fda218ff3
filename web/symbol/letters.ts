import { useEffect, useState } from 'react'
import { readFaces, type Faces } from './faces.ts'

/** Until the letters are there nothing is set in them, and nothing is missed. */
const NOTHING: Faces = { setText: () => ({ width: 0, outlines: [] }), missing: () => [] }
let reading: Promise<Faces> | null = null
let read: Faces = NOTHING

/** The letters that texts are set in, read when something first needs them. */
export function useLetters(): Faces {
  const [faces, keep] = useState<Faces>(() => read)
  useEffect(() => {
    reading ??= readFaces()
    void reading.then((found) => {
      read = found
      keep(found)
    })
  }, [])
  return faces
}
