/** Encodings a file may be read by, under their names in the WHATWG Encoding Standard. */
export const ENCODINGS = [
  'utf-8',
  'utf-16le',
  'utf-16be',
  'windows-1252',
  'iso-8859-2',
  'windows-1251',
  'macintosh',
] as const
export type Encoding = (typeof ENCODINGS)[number]

const SAMPLE = 4096

/** Share of zero bytes among every second one of the beginning, from `start` on. */
function zeros(bytes: Uint8Array, start: 0 | 1): number {
  let [seen, zero] = [0, 0]
  for (let i = start; i < Math.min(bytes.length, SAMPLE); i += 2) {
    seen++
    if (bytes[i] === 0) zero++
  }
  return seen === 0 ? 0 : zero / seen
}

/**
 * Which encoding a file is probably in: by its byte order mark (WHATWG Encoding Standard, section 6), by
 * the zero bytes of UTF-16, UTF-8 where every byte fits it, and windows-1252, which everything fits,
 * otherwise.
 */
export function detectEncoding(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return 'utf-8'
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le'
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be'
  if (zeros(bytes, 1) > 0.3 && zeros(bytes, 0) < 0.1) return 'utf-16le'
  if (zeros(bytes, 0) > 0.3 && zeros(bytes, 1) < 0.1) return 'utf-16be'
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return 'utf-8'
  } catch {
    return 'windows-1252'
  }
}

/** The text of a file; a byte order mark is dropped, and bytes that mean nothing become U+FFFD. */
export function decodeBytes(bytes: Uint8Array, encoding: Encoding): string {
  // Decoded as a stream: in one piece Node.js 20 takes windows-1252 for Latin-1 and loses the euro sign.
  const decoder = new TextDecoder(encoding)
  return decoder.decode(bytes, { stream: true }) + decoder.decode()
}
