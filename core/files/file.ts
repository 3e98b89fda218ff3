import { z } from 'zod'

/** What a file is known by: the SHA-256 of its bytes as they are kept, in hexadecimal digits. */
export const fileSum = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'A file is named by its SHA-256: 64 digits and letters from a to f.')

/** What the public address of a file is made of: nobody finds it by trying, and it stays when the file is replaced. */
export const fileKey = z.string().regex(/^[0-9A-Za-z_-]{21}$/, 'A file has a key of 21 signs.')

/** Pictures that are taken, by what is in them; what they are called does not matter. */
export const PICTURE_TYPES = ['image/png', 'image/jpeg', 'image/webp', 'image/svg+xml'] as const
export type PictureType = (typeof PICTURE_TYPES)[number]

/** What else is taken, for pages: documents, recordings, films and their captions. They are kept to the byte. */
export const MEDIA_TYPES = [
  'application/pdf',
  'audio/mpeg',
  'audio/mp4',
  'audio/wav',
  'audio/ogg',
  'video/mp4',
  'video/webm',
  'text/vtt',
] as const
export type MediaType = (typeof MEDIA_TYPES)[number]
export type FileType = PictureType | MediaType

/** What a file is taken as, in the words of its media type. */
export const isPictureType = (type: string): type is PictureType =>
  PICTURE_TYPES.some((each) => each === type)

/** The largest file that is taken, in bytes; of pictures less, since they are unfolded, and of drawings (SVG) and captions, which are read as a whole. */
export const FILE_BYTES_MAX = 96 * 1024 * 1024
export const PICTURE_BYTES_MAX = 24 * 1024 * 1024
export const CAPTIONS_BYTES_MAX = 512 * 1024
export const DRAWING_BYTES_MAX = 2 * 1024 * 1024
/** The most pixels a picture may unfold to: a sheet of A2 at 300 dpi has 35 million. */
export const PICTURE_PIXELS_MAX = 40_000_000
export const FILE_NAME_MAX = 200

/** What needs a file: it cannot be deleted while something does. */
export const FILE_USERS = ['house-style', 'piece', 'release', 'page', 'page-style'] as const
export type FileUser = (typeof FILE_USERS)[number]

/** Something that needs a file. */
export const fileUse = z.object({ by: z.enum(FILE_USERS), id: z.int(), name: z.string() })
export type FileUse = z.infer<typeof fileUse>

/** An uploaded file, as it is kept: pictures upright, without what cameras write about place and device, harmless. */
export const storedFile = z.object({
  sum: fileSum,
  key: fileKey,
  /** As it was called when it was uploaded. */
  name: z.string(),
  type: z.enum([...PICTURE_TYPES, ...MEDIA_TYPES]),
  bytes: z.int(),
  /** Pixels a side; of a drawing, the units it is drawn in; 0 of what is no picture. */
  width: z.number(),
  height: z.number(),
  /** Widths in pixels that pages show it in, as AVIF, WebP and JPEG; none of what only stands as it is. */
  widths: z.array(z.int()),
  createdAt: z.int(),
  /** Who uploaded it. */
  by: z.string(),
  uses: z.array(fileUse),
})
export type StoredFile = z.infer<typeof storedFile>
