import { _GF256 } from 'qr'
import { blockLengths, blocksOf, type Level } from './capacity.ts'
import { ALPHANUMERIC, CLASS_ENDS, COUNT_BITS, countOf, type Segment } from './segments.ts'

const INDICATORS = { numeric: 0b0001, alphanumeric: 0b0010, byte: 0b0100 } as const
/** What fills a symbol up, in turns (ISO/IEC 18004, section 7.4.10). */
const PADS = [0xec, 0x11] as const
const TERMINATOR_BITS = 4

/** Bits written one upon the other, the highest of each value first. */
function bitWriter(bytes: Uint8Array) {
  let at = 0
  return {
    length: () => at,
    write: (value: number, width: number): void => {
      for (let i = width - 1; i >= 0; i--, at++)
        if ((value >>> i) & 1) bytes[at >>> 3] = (bytes[at >>> 3] ?? 0) | (0x80 >>> (at & 7))
    },
  }
}

/** The data codewords of some segments, filled up to what a version holds (ISO/IEC 18004, section 7.4). */
function dataCodewords(segments: readonly Segment[], version: number, level: Level): Uint8Array {
  const bytes = new Uint8Array(blocksOf(version, level).data)
  const { length, write } = bitWriter(bytes)
  const size = CLASS_ENDS.findIndex((end) => version <= end)
  for (const segment of segments) {
    write(INDICATORS[segment.mode], 4)
    write(countOf(segment), COUNT_BITS[segment.mode][size] ?? 0)
    writeData(segment, write)
  }
  const bits = Math.min(bytes.length * 8, length() + TERMINATOR_BITS)
  for (let i = Math.ceil(bits / 8), pad = 0; i < bytes.length; i++, pad++) bytes[i] = PADS[pad % 2] ?? 0
  return bytes
}

function writeData({ mode, text }: Segment, write: (value: number, width: number) => void): void {
  const values = [...text].map((sign) => ALPHANUMERIC.indexOf(sign))
  switch (mode) {
    case 'numeric':
      for (let i = 0; i < text.length; i += 3) {
        const digits = text.slice(i, i + 3)
        write(Number(digits), [0, 4, 7, 10][digits.length] ?? 0)
      }
      return
    case 'alphanumeric':
      for (let i = 0; i < values.length; i += 2) {
        const [first = 0, second] = values.slice(i, i + 2)
        if (second === undefined) write(first, 6)
        else write(first * 45 + second, 11)
      }
      return
    case 'byte':
      for (const byte of new TextEncoder().encode(text)) write(byte, 8)
  }
}

const times = (a: number, b: number): number => {
  const { exp, log } = _GF256
  return a === 0 || b === 0 ? 0 : (exp[(log[a] ?? 0) + (log[b] ?? 0)] ?? 0)
}

/** The generator polynomial of so many error correction codewords, its leading 1 left out (ISO/IEC 18004, annex A). */
function generator(correction: number): number[] {
  let coefficients: number[] = [1]
  for (let i = 0; i < correction; i++) {
    const root = _GF256.exp[i] ?? 0
    const next = [...coefficients, 0]
    coefficients.forEach((value, at) => {
      next[at + 1] = (next[at + 1] ?? 0) ^ times(value, root)
    })
    coefficients = next
  }
  return coefficients.slice(1)
}

/** Reed-Solomon error correction codewords of a block: the remainder of a division (ISO/IEC 18004, section 7.5.2). */
function correctionOf(block: Uint8Array, divisor: readonly number[]): Uint8Array {
  const rest = new Uint8Array(divisor.length)
  for (const word of block) {
    const factor = word ^ (rest[0] ?? 0)
    rest.copyWithin(0, 1)
    rest[rest.length - 1] = 0
    divisor.forEach((value, i) => {
      rest[i] = (rest[i] ?? 0) ^ times(value, factor)
    })
  }
  return rest
}

/** The words of some blocks in turns: the first of each, the second of each … */
function interleaved(blocks: readonly Uint8Array[]): number[] {
  const longest = Math.max(...blocks.map(({ length }) => length))
  return Array.from({ length: longest }, (_, i) =>
    blocks.flatMap((block) => (i < block.length ? [block[i] ?? 0] : [])),
  ).flat()
}

/** All codewords of a symbol in the order in which they are drawn (ISO/IEC 18004, section 7.6). */
export function codewords(segments: readonly Segment[], version: number, level: Level): Uint8Array {
  const parted = blocksOf(version, level)
  const data = dataCodewords(segments, version, level)
  let start = 0
  const blocks = blockLengths(parted).map((length) => data.subarray(start, (start += length)))
  const divisor = generator(parted.correction)
  const corrections = blocks.map((block) => correctionOf(block, divisor))
  return Uint8Array.from([...interleaved(blocks), ...interleaved(corrections)])
}
