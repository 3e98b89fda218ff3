/** Numbers as one short text, to be signed. */
export const joinNumbers = (numbers: readonly number[]): string =>
  numbers.map((n) => n.toString(36)).join('.')

/** The numbers of such a text; what follows them is not one. */
export const splitNumbers = (text: string): number[] =>
  text.split('.').map((part) => Number.parseInt(part, 36))
