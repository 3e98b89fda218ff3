import { contrastRatio, reflectance } from '../artwork.ts'
import { blocksOf, LEVELS, type Level } from '../capacity.ts'
import { rgbOf } from '../colourPixels.ts'
import { MODULE_MM_MIN } from '../density.ts'
import { freeLevel, printedSymbol } from '../freeLevel.ts'
import type { Look, Paint, Tint } from '../look.ts'
import type { Piece, Proof, Reason } from './proof.ts'

/** What of a piece a fix changes. */
export interface FixSet {
  readonly mm?: number
  readonly level?: Level
  readonly look?: Look
}

/** Something that may make a piece read: what it changes, and in words. */
export interface Fix {
  readonly id:
    | 'enlarge'
    | 'darken'
    | 'lighten'
    | 'shrink-logo'
    | 'shrink-and-raise'
    | 'no-logo'
    | 'raise-level'
    | 'widen'
    | 'plain-patterns'
  readonly sentence: string
  readonly set: FixSet
}

/** Sizes are rounded up to what people say: 5 mm, from 1 m on 5 cm. */
function saidMm(mm: number): number {
  const step = mm < 1000 ? 5 : 50
  return Math.ceil(mm / step - 1e-9) * step
}
const MM_MAX = 5000
/** What is enlarged reads a little further than it must. */
const SPARE = 1.1

function enlarged({ mm }: Piece, proof: Proof): Fix[] {
  const times = Math.max(
    ...proof.reasons.map((reason) => {
      if (reason.code === 'too-far') return (reason.viewingM / reason.readsM) * SPARE
      return reason.code === 'narrow-modules' ? MODULE_MM_MIN / reason.moduleMm : 0
    }),
    0,
  )
  if (times <= 1) return []
  const larger = saidMm(mm * times)
  if (larger > MM_MAX) return []
  return [{ id: 'enlarge', sentence: `Print it ${String(larger)} mm wide.`, set: { mm: larger } }]
}

/** Symbol contrast of the best grade, and a little more (ISO/IEC 15415, from memory). */
const CONTRAST = 0.75

const hex = (rgb: readonly number[]) =>
  `#${rgb
    .map((value) =>
      Math.round(Math.min(255, Math.max(0, value)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`
const lightness = ({ rgb }: Tint) => reflectance(...rgbOf(rgb))

/** A colour of the same hue that throws back no more light than so much; itself where it does not. */
export function darkened(tint: Tint, most: number): Tint {
  if (lightness(tint) <= most) return tint
  const channels = rgbOf(tint.rgb)
  let [dark, light] = [0, 1]
  for (let i = 0; i < 16; i++) {
    const middle = (dark + light) / 2
    const found = reflectance(channels[0] * middle, channels[1] * middle, channels[2] * middle)
    if (found > most) light = middle
    else dark = middle
  }
  return { rgb: hex(channels.map((value) => value * dark)), cmyk: null }
}

const tintsOf = (paint: Paint): Tint[] => (paint.kind === 'solid' ? [paint.tint] : [paint.from, paint.to])
const withTints = (paint: Paint, change: (tint: Tint) => Tint): Paint =>
  paint.kind === 'solid'
    ? { ...paint, tint: change(paint.tint) }
    : { ...paint, from: change(paint.from), to: change(paint.to) }

const PAPER: Tint = { rgb: '#ffffff', cmyk: [0, 0, 0, 0] }

function contrasted({ look }: Piece, proof: Proof): Fix[] {
  const isAbout = (reason: Reason) =>
    reason.code === 'unread' ||
    reason.code === 'no-correction' ||
    (reason.code === 'low-grade' &&
      ['contrast', 'modulation', 'decode', 'correction'].includes(reason.measure)) ||
    (reason.code === 'touchy' && reason.condition === 'dim')
  if (!proof.reasons.some(isAbout) || proof.grades.contrast.value >= CONTRAST) return []
  const { ground } = look
  const ground0 = ground && ground.kind !== 'picture' ? tintsOf(ground) : []
  const lightest = ground0.length > 0 ? Math.min(...ground0.map(lightness)) : 0.85
  const most = lightest - CONTRAST
  if (most > 0.005) {
    const change = (tint: Tint) => darkened(tint, most)
    const ink = withTints(look.ink, change)
    const finder = {
      ...look.finder,
      ringTint: look.finder.ringTint && change(look.finder.ringTint),
      centreTint: look.finder.centreTint && change(look.finder.centreTint),
    }
    const said = tintsOf(ink).map(({ rgb }) => rgb)
    return [
      {
        id: 'darken',
        sentence: `Darken the ink to ${[...new Set(said)].join(' and ')}.`,
        set: { look: { ...look, ink, finder } },
      },
    ]
  }
  const white: Paint = { kind: 'solid', tint: PAPER }
  const ratio = Math.min(...tintsOf(look.ink).map(({ rgb }) => contrastRatio(rgb, PAPER.rgb)))
  return ratio < 3
    ? []
    : [{ id: 'lighten', sentence: 'Make the ground white.', set: { look: { ...look, ground: white } } }]
}

const LOGO_LEAST = 0.05
/** So much of what a block can lose a logo may take: the rest is for paper and press. */
const LOGO_TAKES = 0.35

function smallerLogo({ look, symbol: { text, level, side } }: Piece, proof: Proof): Fix[] {
  const { logo } = look
  const lost = Math.max(0, ...proof.grades.blocks.map(({ lost: each }) => each))
  if (!logo || lost === 0) return []
  const margin = Math.min(logo.margin, 1)
  // Codewords are lost by area, that of the margin included.
  const lostAModule = lost / (logo.share * side + 2 * logo.margin) ** 2
  const shareFor = (correctable: number, modules: number) => {
    const across = Math.sqrt((correctable * LOGO_TAKES) / lostAModule)
    return Math.floor(Math.min(logo.share * 0.85, (across - 2 * margin) / modules) * 100) / 100
  }
  const withShare = (share: number): Look => ({ ...look, logo: { ...logo, share, margin } })
  const percent = (share: number) => `${String(Math.round(share * 100))} % of the side`
  const fixes: Fix[] = []
  const share = shareFor(Math.min(...proof.grades.blocks.map(({ correctable }) => correctable)), side)
  if (share >= LOGO_LEAST)
    fixes.push({
      id: 'shrink-logo',
      sentence: `Shrink the logo to ${percent(share)}.`,
      set: { look: withShare(share) },
    })
  if (level !== 'H') {
    const raised = printedSymbol(text, 'H')
    const { correction } = blocksOf(raised.version, raised.level)
    const larger = shareFor(Math.floor(correction / 2), raised.side)
    if (larger >= LOGO_LEAST)
      fixes.push({
        id: 'shrink-and-raise',
        sentence: `Shrink the logo to ${percent(larger)}, and raise the error correction to level H.`,
        set: { look: withShare(larger), level: 'H' },
      })
  }
  fixes.push({ id: 'no-logo', sentence: 'Remove the logo.', set: { look: { ...look, logo: null } } })
  return fixes
}

function raisedLevel({ symbol: { text, level } }: Piece, proof: Proof): Fix[] {
  const lost = Math.max(0, ...proof.grades.blocks.map(({ lost: each }) => each))
  const next = LEVELS[LEVELS.indexOf(level) + 1]
  if (lost === 0 || !next) return []
  const raised = freeLevel(text, next)
  return [
    {
      id: 'raise-level',
      sentence: `Raise the error correction to level ${raised}: the modules become smaller.`,
      set: { level: raised },
    },
  ]
}

const WIDE = 0.9

function widened({ look }: Piece): Fix[] {
  const { modules } = look
  if (modules.size >= WIDE || modules.shape === 'square' || modules.shape === 'flowing') return []
  return [
    {
      id: 'widen',
      sentence: `Make the modules ${String(WIDE * 100)} % of their width.`,
      set: { look: { ...look, modules: { ...modules, size: WIDE } } },
    },
  ]
}

function plainPatterns({ look }: Piece, proof: Proof): Fix[] {
  const isDamaged = proof.reasons.some(
    ({ code, ...rest }) => code === 'low-grade' && 'measure' in rest && rest.measure === 'fixedPattern',
  )
  if (!isDamaged) return []
  return [
    {
      id: 'plain-patterns',
      sentence: 'Make the finder and alignment patterns square.',
      set: {
        look: { ...look, finder: { ...look.finder, ring: 'square', centre: 'square' }, alignment: 'modules' },
      },
    },
  ]
}

/**
 * What may make a piece read that is not ready, the likeliest first; whether it does is for a proof of the piece with
 * `set` to say.
 */
export function fixesFor(piece: Piece, proof: Proof): Fix[] {
  if (proof.readiness === 'ready') return []
  return [
    ...contrasted(piece, proof),
    ...smallerLogo(piece, proof),
    ...plainPatterns(piece, proof),
    ...widened(piece),
    ...enlarged(piece, proof),
    ...raisedLevel(piece, proof),
  ]
}
