import { z } from 'zod'

/** Shapes of the modules that carry data. */
export const MODULE_SHAPES = ['square', 'rounded', 'dot', 'upright', 'lying', 'diamond', 'flowing'] as const
export type ModuleShape = (typeof MODULE_SHAPES)[number]

/** Shapes of the rings and centres of finder and alignment patterns. */
export const PATTERN_SHAPES = ['square', 'rounded', 'circle'] as const
export type PatternShape = (typeof PATTERN_SHAPES)[number]

const percent = z.number().min(0).max(100)

/** A colour on screens, and in print where it is not to be worked out from that: cyan, magenta, yellow and black in per cent. */
export const tint = z.object({
  rgb: z.string().regex(/^#[0-9a-f]{6}$/, 'Write a colour as # and six digits, such as #0c5a66.'),
  cmyk: z.tuple([percent, percent, percent, percent]).nullable().default(null),
})
export type Tint = z.infer<typeof tint>

/** What an area is filled with: one colour, or two that run into each other. */
export const paint = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('solid'), tint }),
  /** `angle` in degrees, clockwise, from left to right at 0. */
  z.object({ kind: z.literal('linear'), from: tint, to: tint, angle: z.number().min(0).max(360) }),
  /** From the centre outwards. */
  z.object({ kind: z.literal('radial'), from: tint, to: tint }),
])
export type Paint = z.infer<typeof paint>

/** The SHA-256 of an uploaded file, in hexadecimal digits. */
export const fileId = z.string().regex(/^[0-9a-f]{64}$/)

export const QUIET_MIN = 4
export const QUIET_MAX = 12
export const LOGO_SHARE_MAX = 0.4
export const CAPTION_MAX = 60

/** How a symbol is drawn. Lengths are in modules, so that it is the same look at every size. */
export const look = z.object({
  modules: z.object({
    shape: z.enum(MODULE_SHAPES),
    /** How much of a module is printed, side by side: 1 is all of it. */
    size: z.number().min(0.3).max(1),
  }),
  finder: z.object({
    ring: z.enum(PATTERN_SHAPES),
    centre: z.enum(PATTERN_SHAPES),
    /** Null for the ink of the data. */
    ringTint: tint.nullable(),
    centreTint: tint.nullable(),
  }),
  alignment: z.enum(['modules', ...PATTERN_SHAPES]),
  ink: paint,
  /** Null for none: whatever it is printed on shows through. */
  ground: z.union([paint, z.object({ kind: z.literal('picture'), file: fileId })]).nullable(),
  quietZone: z.number().int().min(QUIET_MIN).max(QUIET_MAX),
  logo: z
    .object({
      file: fileId,
      /** Its longer side, as a share of the symbol's. */
      share: z.number().min(0.05).max(LOGO_SHARE_MAX),
      margin: z.number().min(0).max(4),
      plate: z.enum(['none', 'square', 'round']),
      plateTint: tint,
      /** Whether the modules it touches are left out, or lie under it. */
      cleared: z.boolean(),
    })
    .nullable(),
  surround: z
    .object({
      /** Width of the line; 0 for none. */
      line: z.number().min(0).max(4),
      corner: z.number().min(0).max(12),
      padding: z.number().min(0).max(12),
      tint,
      textTint: tint,
      caption: z.string().max(CAPTION_MAX),
      captionAt: z.enum(['above', 'below']),
      /** The short link in letters, for people without a camera. */
      link: z.boolean(),
    })
    .nullable(),
})
export type Look = z.infer<typeof look>

const solid = (rgb: string, cmyk: Tint['cmyk'] = null): Paint => ({ kind: 'solid', tint: { rgb, cmyk } })

/** Black as black ink alone, on white: what every symbol is until somebody chooses otherwise. */
export const PLAIN_LOOK: Look = {
  modules: { shape: 'square', size: 1 },
  finder: { ring: 'square', centre: 'square', ringTint: null, centreTint: null },
  alignment: 'modules',
  ink: solid('#000000', [0, 0, 0, 100]),
  ground: solid('#ffffff', [0, 0, 0, 0]),
  quietZone: QUIET_MIN,
  logo: null,
  surround: null,
}
