import type { Response } from 'express'

/** Makes an answer a file to be saved under a name (RFC 6266): the plain name for those that know no other, the real one beside it (RFC 8187). */
export function attach(response: Response, type: string, name: string): void {
  const plain = name.replace(/[^\x20-\x7e]|["\\%]/g, '_')
  const real = encodeURIComponent(name).replace(
    /['()*]/g,
    (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`,
  )
  response.set({
    'Content-Type': type,
    'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${real}`,
  })
}
