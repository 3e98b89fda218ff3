import { createHash } from 'node:crypto'

/** A key of its own for each purpose, out of one secret. */
export function keyFor(purpose: string, secret: string): Buffer {
  return createHash('sha256').update(`${purpose}\u0000${secret}`).digest()
}
