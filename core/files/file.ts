import { z } from 'zod'

/** What a file is known by: the SHA-256 of its bytes as they are kept, in hexadecimal digits. */
export const fileSum = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'A file is named by its SHA-256: 64 digits and letters from a to f.')

/** Pictures that are taken, by what is in them; what they are called does not matter. */
export const PICTURE_TYPES = ['image/png', 'image/jpeg', 'image/webp', 'image/svg+xml'] as const
export type PictureType = (typeof PICTURE_TYPES)[number]

/** The largest file that is taken, in bytes; of drawings (SVG), which are read as a whole, less. */
export const FILE_BYTES_MAX = 24 * 1024 * 1024
export const DRAWING_BYTES_MAX = 2 * 1024 * 1024
/** The most pixels a picture may unfold to: a sheet of A2 at 300 dpi has 35 million. */
export const PICTURE_PIXELS_MAX = 40_000_000
export const FILE_NAME_MAX = 200

/** What needs a file: it cannot be deleted while something does. */
export const FILE_USERS = ['house-style', 'piece', 'release'] as const
export type FileUser = (typeof FILE_USERS)[number]

/** Something that needs a file. */
export const fileUse = z.object({ by: z.enum(FILE_USERS), id: z.int(), name: z.string() })
export type FileUse = z.infer<typeof fileUse>

/** An uploaded file, as it is kept: upright, without what cameras write about place and device, harmless. */
export const storedFile = z.object({
  sum: fileSum,
  /** As it was called when it was uploaded. */
  name: z.string(),
  type: z.enum(PICTURE_TYPES),
  bytes: z.int(),
  /** Pixels a side; of a drawing, the units it is drawn in. */
  width: z.number(),
  height: z.number(),
  createdAt: z.int(),
  /** Who uploaded it. */
  by: z.string(),
  uses: z.array(fileUse),
})
export type StoredFile = z.infer<typeof storedFile>
