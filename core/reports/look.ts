import { contrastRatio, type Look, type Paint } from '../symbol/index.ts'

/** The colour of headings and lines, and the file of the logo. */
export interface DrawnLook {
  /** `#0c5a66`; text in it is read on white (WCAG 2.2 AA, 4.5:1). */
  readonly accent: string
  /** The SHA-256 of an uploaded picture; null for none. */
  readonly logo: string | null
}

const PAPER = '#ffffff'
const TEXT_CONTRAST_MIN = 4.5
export const PLAIN_REPORT_LOOK: DrawnLook = { accent: '#0c5a66', logo: null }

const coloursOf = (ink: Paint): string[] =>
  ink.kind === 'solid' ? [ink.tint.rgb] : [ink.from.rgb, ink.to.rgb]

/**
 * What a report takes of a house style: its logo, and the first colour of its symbols that is one (black says nothing) and
 * that texts in it can be read in on white.
 */
export function lookOfStyle({ ink, finder, logo }: Look): DrawnLook {
  const colours = [...coloursOf(ink), finder.ringTint?.rgb, finder.centreTint?.rgb]
  const accent = colours.find(
    (colour) =>
      colour !== undefined && colour !== '#000000' && contrastRatio(PAPER, colour) >= TEXT_CONTRAST_MIN,
  )
  return { accent: accent ?? PLAIN_REPORT_LOOK.accent, logo: logo?.file ?? null }
}
