/** Bytes of a text in UTF-8. */
export const bytesOf = (text: string): number => new TextEncoder().encode(text).length
