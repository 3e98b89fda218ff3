/** How deep brackets may stand in one another in what is sent: deeper than anything a contract describes. */
export const NESTED_MAX = 64

const [QUOTE, BACKSLASH] = [0x22, 0x5c]
const OPEN = new Set([0x5b, 0x7b])
const CLOSE = new Set([0x5d, 0x7d])

/**
 * Whether JSON nests its arrays and objects no deeper than `max`, told in one pass over its bytes without building
 * any of it (RFC 8259: brackets within strings do not count). What is no JSON gets some answer, as quickly.
 */
export function isShallow(json: Uint8Array, max = NESTED_MAX): boolean {
  let depth = 0
  let inString = false
  for (let i = 0; i < json.length; i++) {
    const byte = json[i] ?? 0
    if (inString) {
      if (byte === BACKSLASH) i++
      else if (byte === QUOTE) inString = false
    } else if (byte === QUOTE) inString = true
    else if (OPEN.has(byte)) {
      if (++depth > max) return false
    } else if (CLOSE.has(byte)) depth--
  }
  return true
}
