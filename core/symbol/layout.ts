import { blockLengths, blocksOf, type Level } from './capacity.ts'

/** What a module of a symbol is there for (ISO/IEC 18004, section 6.3). */
export const ROLES = [
  'data',
  'finder-ring',
  'finder-centre',
  'separator',
  'timing',
  'alignment-ring',
  'alignment-centre',
  'format',
  'version',
] as const
export type Role = (typeof ROLES)[number]

/** Where everything stands in the symbols of a version. */
export interface Layout {
  /** Modules a side. */
  readonly side: number
  /** What each module is there for, rows from the top: an index of `ROLES`. */
  readonly roles: Uint8Array
  /** Which bit of the codewords a module carries, the first one 0; −1 where it carries none. */
  readonly bits: Int16Array
  /** Centres of the finder patterns and of the alignment patterns, in modules. */
  readonly finders: readonly (readonly [x: number, y: number])[]
  readonly alignments: readonly (readonly [x: number, y: number])[]
}

const FINDER = 7
const TIMING_AT = 6

/**
 * The rows and columns that centres of alignment patterns stand in (ISO/IEC 18004, annex E). The table of the
 * standard is reproduced by equal even steps from the far edge; version 32 alone steps otherwise.
 */
export function alignmentPositions(version: number): number[] {
  if (version === 1) return []
  const count = Math.floor(version / 7) + 2
  const last = 17 + 4 * version - FINDER
  const step = version === 32 ? 26 : Math.ceil((last - TIMING_AT) / (count - 1) / 2) * 2
  return [TIMING_AT, ...Array.from({ length: count - 1 }, (_, i) => last - (count - 2 - i) * step)]
}

const layouts = new Map<number, Layout>()

/** @param version 1 to 40 */
export function layoutOf(version: number): Layout {
  const known = layouts.get(version)
  if (known) return known
  const made = makeLayout(version)
  layouts.set(version, made)
  return made
}

function makeLayout(version: number): Layout {
  const side = 17 + 4 * version
  const roles = new Uint8Array(side * side)
  const far = side - FINDER
  const put = (x: number, y: number, role: Role) => {
    if (x >= 0 && y >= 0 && x < side && y < side) roles[y * side + x] = ROLES.indexOf(role)
  }
  for (let i = 0; i < side; i++) {
    put(i, TIMING_AT, 'timing')
    put(TIMING_AT, i, 'timing')
  }
  const alignments = alignmentCentres(version, far)
  for (const [x, y] of alignments) putSquares(put, x, y, 2, ['alignment-centre', 'alignment-ring'])
  for (let i = 0; i < 9; i++) {
    // The format twice: about the first finder, and along the other two; one module is always dark.
    put(i, 8, 'format')
    put(8, i, 'format')
    if (i < 8) {
      put(side - 1 - i, 8, 'format')
      put(8, side - 1 - i, 'format')
    }
  }
  put(TIMING_AT, 8, 'timing')
  put(8, TIMING_AT, 'timing')
  if (version >= 7)
    for (let i = 0; i < 18; i++) {
      const [along, across] = [Math.floor(i / 3), side - 11 + (i % 3)]
      put(along, across, 'version')
      put(across, along, 'version')
    }
  const finders = [
    [3, 3],
    [far + 3, 3],
    [3, far + 3],
  ] as const
  for (const [x, y] of finders)
    putSquares(put, x, y, 4, ['finder-centre', 'finder-centre', 'finder-ring', 'finder-ring', 'separator'])
  return { side, roles, bits: bitsInOrder(side, roles), finders, alignments }
}

function alignmentCentres(version: number, far: number): [number, number][] {
  const positions = alignmentPositions(version)
  const isFinders = (x: number, y: number) =>
    (x === TIMING_AT && y === TIMING_AT) || (x === TIMING_AT && y === far) || (x === far && y === TIMING_AT)
  return positions.flatMap((y) =>
    positions.filter((x) => !isFinders(x, y)).map((x): [number, number] => [x, y]),
  )
}

/** Puts rings of modules about a centre: what stands at a distance of 0, 1, 2 …; what is not named is the outermost. */
function putSquares(
  put: (x: number, y: number, role: Role) => void,
  x: number,
  y: number,
  radius: number,
  byDistance: readonly Role[],
): void {
  for (let dy = -radius; dy <= radius; dy++)
    for (let dx = -radius; dx <= radius; dx++) {
      const away = Math.max(Math.abs(dx), Math.abs(dy))
      put(x + dx, y + dy, byDistance[Math.min(away, byDistance.length - 1)] ?? 'data')
    }
}

/** Codewords are written in columns of two from the lower right corner, upwards and downwards in turns (ISO/IEC 18004, section 7.7.3). */
function bitsInOrder(side: number, roles: Uint8Array): Int16Array {
  const bits = new Int16Array(side * side).fill(-1)
  const dataRole = ROLES.indexOf('data')
  let next = 0
  let upwards = true
  for (let right = side - 1; right > 0; right -= 2) {
    // The column of the timing pattern holds no codewords: the pairs step over it.
    if (right === TIMING_AT) right--
    for (let i = 0; i < side; i++) {
      const y = upwards ? side - 1 - i : i
      for (const x of [right, right - 1]) if (roles[y * side + x] === dataRole) bits[y * side + x] = next++
    }
    upwards = !upwards
  }
  return bits
}

/** Where a codeword belongs, counted as they are drawn. */
export interface Place {
  readonly block: number
  /** Its place in the block: data codewords first, then those for error correction. */
  readonly at: number
}

/** The block and place of each codeword, in the order in which they are drawn (ISO/IEC 18004, section 7.6). */
export function codewordPlaces(version: number, level: Level): Place[] {
  const parted = blocksOf(version, level)
  const lengths = blockLengths(parted)
  const places: Place[] = []
  for (let at = 0; at < Math.max(...lengths); at++)
    lengths.forEach((length, block) => {
      if (at < length) places.push({ block, at })
    })
  for (let at = 0; at < parted.correction; at++)
    lengths.forEach((length, block) => places.push({ block, at: length + at }))
  return places
}
