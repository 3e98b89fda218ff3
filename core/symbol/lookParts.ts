import type { SetText } from './lettering.ts'

/** What a look needs of the world around it. */
export interface LookParts {
  readonly text: SetText
  /** The pixels of an uploaded picture a side; null where there is no such file any more. */
  readonly pictureSize: (file: string) => { readonly width: number; readonly height: number } | null
}
