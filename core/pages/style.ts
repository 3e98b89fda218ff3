import { z } from 'zod'
import { fileKey } from '../files/index.ts'
import { contrastRatio } from '../symbol/index.ts'

const colour = z
  .string()
  .regex(/^#[0-9a-fA-F]{6}$/, 'Write a colour as six hexadecimal digits: #0C5A66.')
  .transform((value) => value.toUpperCase())

const ground = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('solid'), colour }),
  z.strictObject({
    kind: z.literal('gradient'),
    from: colour,
    upTo: colour,
    /** Degrees, clockwise from upwards, as CSS has them. */
    angle: z.int().min(0).max(359),
  }),
  /** Words stand on a sheet of one colour over it: over a picture nobody could say how well they are read. */
  z.strictObject({ kind: z.literal('picture'), file: z.union([fileKey, z.literal('')]), sheet: colour }),
])
export type Ground = z.infer<typeof ground>

/** Colours for one surround: by day or in the dark. */
const palette = z.strictObject({
  ground,
  ink: colour,
  /** Of links and buttons. */
  accent: colour,
})
export type Palette = z.infer<typeof palette>

export const FACES = ['plain', 'serif', 'rounded', 'narrow'] as const
export const SCALES = ['small', 'medium', 'large'] as const
export const SCHEMES = ['light', 'dark', 'both'] as const

/** How pages look. */
export const pageStyle = z.strictObject({
  /** Which of its palettes are used; with both, the phone chooses. */
  scheme: z.enum(SCHEMES),
  light: palette,
  dark: palette,
  face: z.enum(FACES),
  scale: z.enum(SCALES),
  /** Of corners, in CSS pixels. */
  corner: z.int().min(0).max(28),
})
export type PageStyle = z.infer<typeof pageStyle>

/** How pages look for which nothing else was chosen. */
export const PLAIN_STYLE: PageStyle = {
  scheme: 'both',
  light: { ground: { kind: 'solid', colour: '#FAF8F3' }, ink: '#1F2A30', accent: '#0C5A66' },
  dark: { ground: { kind: 'solid', colour: '#14191C' }, ink: '#E9E6DE', accent: '#6CC0CC' },
  face: 'plain',
  scale: 'medium',
  corner: 6,
}

/** The palettes that a style uses. */
export function palettesOf({
  scheme,
  light,
  dark,
}: PageStyle): readonly (readonly ['light' | 'dark', Palette])[] {
  const all = [['light', light] as const, ['dark', dark] as const]
  return scheme === 'both' ? all : all.filter(([name]) => name === scheme)
}

/** WCAG 2.2 AA: 1.4.3 for text. Links are text, so buttons and their edges (3:1, 1.4.11) are within it. */
export const TEXT_CONTRAST_MIN = 4.5
const STEPS = 20

const channels = (value: string) => [1, 3, 5].map((at) => parseInt(value.slice(at, at + 2), 16))
const between = (from: string, upTo: string, part: number) => {
  const ends = channels(upTo)
  return `#${channels(from)
    .map((value, i) => Math.round(value + ((ends[i] ?? 0) - value) * part))
    .map((value) => value.toString(16).padStart(2, '0'))
    .join('')}`
}

/** What words stand on: the colours of a ground from one end to the other, or the sheet over a picture. */
export function surfacesOf(given: Ground): string[] {
  if (given.kind === 'solid') return [given.colour]
  if (given.kind === 'picture') return [given.sheet]
  return Array.from({ length: STEPS + 1 }, (_each, i) => between(given.from, given.upTo, i / STEPS))
}

/** The lowest contrast of a colour on a ground, 1 to 21 (WCAG 2.2). */
export function contrastOn(given: Ground, of: string): number {
  return Math.min(...surfacesOf(given).map((surface) => contrastRatio(surface, of)))
}

export interface StyleFault {
  readonly path: string
  readonly sentence: string
}

const CONTRASTS = [
  ['ink', 'Texts'],
  ['accent', 'Links and buttons'],
] as const

/** What WCAG 2.2 AA has against a style, with what to do; empty where nothing. */
export function styleFaults(style: PageStyle): StyleFault[] {
  return palettesOf(style).flatMap(([name, colours]) => {
    const faults = CONTRASTS.flatMap(([field, what]) => {
      const ratio = contrastOn(colours.ground, colours[field])
      if (ratio >= TEXT_CONTRAST_MIN) return []
      // Cut, not rounded: 4.46 is not 4.5.
      const shown = (Math.floor(ratio * 10) / 10).toFixed(1)
      return [
        {
          path: `${name}.${field}`,
          sentence: `${what} have a contrast of ${shown} : 1 on this ground; people need ${String(TEXT_CONTRAST_MIN)} : 1. Move the two colours further apart.`,
        },
      ]
    })
    const { ground: of } = colours
    return of.kind === 'picture' && of.file === ''
      ? [...faults, { path: `${name}.ground.file`, sentence: 'Choose a picture for the ground.' }]
      : faults
  })
}

/** Black or white, whichever is read better on a colour: the better of both is never below 4.5 : 1. */
export function inkOn(given: string): string {
  return contrastRatio(given, '#000000') > contrastRatio(given, '#FFFFFF') ? '#000000' : '#FFFFFF'
}

/** The uploaded pictures that a style needs, by their keys. */
export function filesOfStyle({ light, dark }: PageStyle): string[] {
  const keys = [light, dark].flatMap(({ ground: of }) => (of.kind === 'picture' ? [of.file] : []))
  return [...new Set(keys.filter((key) => key !== ''))]
}
