const BYTES = 8

/** A mark that joins leads as one person, or parts one from all others. */
export function freshMark(kind: 'same' | 'other'): string {
  const bytes = crypto.getRandomValues(new Uint8Array(BYTES))
  const key = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
  return `${kind === 'same' ? 'g' : 's'}:${key}`
}
