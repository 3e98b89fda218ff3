import { fullSide } from './outline.ts'
import type { Level } from './capacity.ts'
import { fit } from './fit.ts'

/**
 * The smallest version (1–40) that holds a text at a level, worked out without drawing the symbol; null
 * where none does. The same as `encode(text, level).version`.
 */
export function smallestVersion(text: string, level: Level): number | null {
  return fit(text, level)?.version ?? null
}

/** Modules a side and how wide one of them prints, in millimetres; null where the text fits no symbol. */
export interface Density {
  readonly side: number
  readonly moduleMm: number
}

/**
 * Narrower modules than this, in millimetres, are lost on rough paper and by cheap cameras. Common
 * practice, no published source.
 */
export const MODULE_MM_MIN = 0.4

/** The symbol of a text at a printed size: its version, modules a side and the module in mm; null where no symbol holds it. */
export function density(text: string, level: Level, mm: number): Density | null {
  const version = smallestVersion(text, level)
  if (version === null) return null
  const side = 17 + 4 * version
  return { side, moduleMm: mm / fullSide(side) }
}

/** Symbol density one piece's symbol is for each way of writing what it stands for, at its level and size. */
export interface Densities {
  /** The long tagged address itself, which would make the code static. */
  readonly long: Density | null
  readonly mixedCase: Density | null
  /** What is printed: upper case, so that the alphanumeric mode applies. */
  readonly upperCase: Density | null
}

/** The symbols of a tagged address, of its short link, and of the short link in upper case as it is printed. */
export function densities(longAddress: string, shortLink: string, level: Level, mm: number): Densities {
  // A link people read keeps its scheme and host small; the slug's case does not change the mode any more.
  return {
    long: density(longAddress, level, mm),
    mixedCase: density(shortLink, level, mm),
    upperCase: density(shortLink.toUpperCase(), level, mm),
  }
}

/** How far away a symbol of a side can be scanned, in metres: ten times its side. Common practice, no published source. */
export function scanningDistanceM(mm: number): number {
  return mm / 100
}

/** What speaks against printing a symbol so small; null where nothing does. */
export function sizeWarning(
  printedLink: string,
  level: Level,
  mm: number,
  viewingM: number | null,
): string | null {
  const printed = density(printedLink, level, mm)
  if (printed && printed.moduleMm < MODULE_MM_MIN) {
    const least = Math.ceil(MODULE_MM_MIN * fullSide(printed.side))
    return `A module would be ${printed.moduleMm.toFixed(2)} mm wide; below ${String(MODULE_MM_MIN)} mm phones begin to fail. Print it ${String(least)} mm or wider.`
  }
  if (viewingM !== null && viewingM > scanningDistanceM(mm) + 1e-9) {
    return `At ${String(mm)} mm it is read from about ${String(Math.round(mm) / 100)} m, not from ${String(viewingM)} m. Print it ${String(Math.ceil(viewingM * 100))} mm or wider.`
  }
  return null
}
